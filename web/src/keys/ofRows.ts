import { duplicateRow, toggleMute } from '../board/rows'
import { printAsBefore } from '../prints/ofRow'
import { hearRowAlone, makeGroup, openSend, openTrace } from '../routing/gestures'
import { hear } from '../session/listening'
import { openShelf } from '../shelf/open'
import { locate, toggleLoop, togglePlay, toggleSolo } from '../session/transport'
import { setClick, toggleReady, toggleRecord } from '../takes/recording'
import { setView, view } from '../session/view'
import * as open from './open'
import { alsoRow, row, shiftRow, step, stepBar, turnAir } from './steps'
import type { Group } from './keys'

/** Keys of what is heard, and of rows. */
export const ofRows: Group[] = [
  {
    group: 'Listening',
    list: [
      {
        key: 'Space',
        says: 'Play, stop (a second stop cuts the tails)',
        does: { space: togglePlay },
        blind: true,
      },
      {
        key: 'Shift Space',
        says: 'Record on the rows that are ready; again ends it while the song goes on',
        does: { 'shift+space': toggleRecord },
      },
      {
        key: '4',
        says: 'Click on the beats, for your ears only',
        does: { '4': () => setClick(!view().click) },
      },
      { key: 'Home', says: 'Playhead to the beginning', does: { home: () => locate(0) }, blind: true },
      {
        key: 'L',
        says: 'Loop the range drawn on the ruler, or the section at the playhead; again ends it',
        does: { l: toggleLoop },
        blind: true,
      },
      {
        key: ', .',
        says: 'Playhead one bar back or on',
        does: { comma: stepBar(-1), period: stepBar(1) },
        each: [
          [',', 'Playhead one bar back'],
          ['.', 'Playhead one bar on'],
        ],
        blind: true,
      },
      {
        key: 'M',
        says: 'Main output in mono, or not',
        does: { m: () => hear({ mono: !view().mono }) },
        blind: true,
      },
      { key: 'Z', says: 'Soundings: what was noticed', does: { z: open.soundings }, blind: true },
      {
        key: 'Shift Z',
        says: 'Remarks: what people said; one about what is selected',
        does: { 'shift+z': open.remarks },
        blind: true,
      },
    ],
  },
  {
    group: 'Rows',
    list: [
      {
        key: '↑ ↓',
        says: 'Select the row above or below',
        does: { up: step('up'), down: step('down') },
        each: [],
        blind: true,
      },
      {
        key: 'Alt ↑ ↓',
        says: 'Move the row up or down',
        does: {
          'alt+up': shiftRow(-1),
          'alt+down': shiftRow(1),
        },
        each: [
          ['Alt ↑', 'Move the row up'],
          ['Alt ↓', 'Move the row down'],
        ],
      },
      {
        key: 'Shift ↑ ↓',
        says: 'Fold the row to a line, or open its air',
        does: { 'shift+up': turnAir(-1), 'shift+down': turnAir(1) },
        each: [
          ['Shift ↑', 'Fold the row, or shut its air'],
          ['Shift ↓', 'Unfold the row, or open its air'],
        ],
        blind: true,
      },
      {
        key: 'Ctrl Shift ↑ ↓',
        says: 'Select the row above or below together with those that are',
        does: {
          'ctrl+shift+up,meta+shift+up': alsoRow(-1),
          'ctrl+shift+down,meta+shift+down': alsoRow(1),
        },
        each: [],
        blind: true,
      },
      { key: 'R', says: 'Rows: find, hide and show them', does: { r: open.rows } },
      {
        key: 'Shift R',
        says: 'Make the row ready to be recorded in this window, or not',
        does: { 'shift+r': row(toggleReady) },
      },
      { key: 'W', says: 'The shelf: sounds for any project', does: { w: openShelf } },
      {
        key: 'Q',
        says: 'Mute (quiet)',
        does: { q: row((c) => c.kind !== 'main' && toggleMute(c)) },
        blind: true,
      },
      {
        key: 'H',
        says: 'Solo (hear); with Shift only this',
        does: { h: row((c) => toggleSolo(c.id, false)), 'shift+h': row((c) => toggleSolo(c.id, true)) },
        each: [
          ['H', 'Solo the row, or not'],
          ['Shift H', 'Solo the row, and no other'],
        ],
        blind: true,
      },
      {
        key: 'N',
        says: 'Name the selected stage or row',
        does: { n: () => setView({ renaming: view().stage || view().channel }) },
      },
      {
        key: 'C',
        says: 'Duplicate the row with everything on it',
        does: { c: row((c) => c.kind !== 'main' && duplicateRow(c)) },
      },
      {
        key: 'P',
        says: 'Print the row to a new track',
        does: { p: row(open.print) },
      },
      {
        key: 'Alt P',
        says: 'Print the row as one was printed last, without asking',
        does: { 'alt+p': row(printAsBefore) },
      },
      {
        key: 'Shift P',
        says: 'Print stems and mixes: several files at once',
        does: { 'shift+p': open.stems },
      },
      { key: 'Shift Ctrl click', says: 'On names: select rows together' },
      { key: 'S', says: 'Send the selected rows to a return, also a new one', does: { s: openSend } },
      { key: 'A', says: 'Gather the selected rows in a group', does: { a: makeGroup } },
      {
        key: 'D',
        says: 'Hear the row without its returns, of a return what goes into it; with Shift only what comes back; Esc ends it',
        does: { d: () => hearRowAlone('dry'), 'shift+d': () => hearRowAlone('share') },
        each: [
          ['D', 'Hear the row without its returns'],
          ['Shift D', 'Hear only what comes back from its returns'],
        ],
      },
      {
        key: 'T',
        says: 'Trace the row to the main output, or to the second selected row',
        does: { t: openTrace },
      },
    ],
  },
]
