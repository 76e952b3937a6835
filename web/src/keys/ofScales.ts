import { zoomBy } from '../board/zoom'
import { clearMarks } from '../controls/Depth'
import { takeBack } from '../session/changes'
import { showDepth } from '../session/listening'
import { setView, view } from '../session/view'
import { turnTheme } from '../theme/theme'
import * as trial from '../trials/actions'
import { row } from './steps'
import type { Group } from './keys'

/** Keys of trials, of scales, and of the window. */
export const ofScales: Group[] = [
  {
    group: 'Trials',
    list: [
      {
        key: 'O',
        says: 'Keep the same stages in another order; with Shift a copy',
        does: { o: row(trial.keepOtherOrder), 'shift+o': row((c) => trial.keep(c)) },
        each: [
          ['O', 'Keep a trial: the same stages in another order'],
          ['Shift O', 'Keep a trial: a copy of the chain'],
        ],
      },
      {
        key: 'Y',
        says: 'Hear the next trial; with Shift the one before',
        does: { y: row((c) => trial.hearNext(c, 1)), 'shift+y': row((c) => trial.hearNext(c, -1)) },
        each: [
          ['Y', 'Hear the next trial'],
          ['Shift Y', 'Hear the trial before'],
        ],
        blind: true,
      },
    ],
  },
  {
    group: 'Scales',
    list: [
      { key: '← →', says: 'One step; Shift: a tenth; Page keys: ten' },
      { key: 'Enter', says: 'Type a value' },
      { key: '0', says: 'To 0 dB' },
      { key: 'Backspace', says: 'Reset' },
      { key: 'Wheel', says: 'One step, while the scale has the focus' },
      { key: 'Ctrl C V', says: 'Copy or paste the value' },
    ],
  },
  {
    group: 'View',
    list: [
      {
        key: '1 2 3',
        says: 'Low, mid, high tide',
        does: {
          1: () => setView({ tide: 'low' }),
          2: () => setView({ tide: 'mid' }),
          3: () => setView({ tide: 'high' }),
        },
        each: [
          ['1', 'Low tide: mostly time'],
          ['2', 'Mid tide: as much of the signal as of time'],
          ['3', 'High tide: the signal only, in columns'],
        ],
        blind: true,
      },
      {
        key: '+ −',
        says: 'Higher or lower rows',
        does: {
          '+,=': () => setView({ rowHeight: Math.min(view().rowHeight + 9, 150) }),
          '-': () => setView({ rowHeight: Math.max(view().rowHeight - 9, 48) }),
        },
        each: [
          ['+', 'Higher rows'],
          ['−', 'Lower rows'],
        ],
        blind: true,
      },
      {
        key: '[ ]',
        says: 'Zoom out or in',
        does: { '[': () => zoomBy(1.5), ']': () => zoomBy(1 / 1.5) },
        each: [
          ['[', 'Zoom out'],
          [']', 'Zoom in'],
        ],
        blind: true,
      },
      {
        key: 'K',
        says: 'Fold the bench away',
        does: { k: () => setView({ bench: !view().bench }) },
        blind: true,
      },
      {
        key: 'E',
        says: 'Clear held levels and marks of what went over',
        does: { e: clearMarks },
        blind: true,
      },
      {
        key: 'Shift E',
        says: 'Depth figures as peaks or as mean levels',
        does: { 'shift+e': () => showDepth(view().depth === 'peak' ? 'rms' : 'peak') },
      },
      {
        key: 'G',
        says: 'Day chart or night chart',
        does: { g: turnTheme },
        blind: true,
      },
      {
        key: 'Ctrl Z',
        says: 'Undo your own last change; with Shift redo',
        does: {
          'ctrl+z,meta+z': () => takeBack('undo'),
          'ctrl+shift+z,meta+shift+z': () => takeBack('redo'),
        },
        each: [
          ['Ctrl Z', 'Undo your own last change'],
          ['Ctrl Shift Z', 'Redo what you took back'],
        ],
      },
      {
        key: ';',
        says: 'Everything that can be done here and now, found by words',
        does: { ';': () => setView({ dialog: { kind: 'commands' } }) },
        blind: true,
      },
      {
        key: '?',
        says: 'This card',
        does: { '?': () => setView({ dialog: { kind: 'keys' } }) },
        blind: true,
      },
    ],
  },
]
