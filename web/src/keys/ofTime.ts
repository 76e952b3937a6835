import { paste } from '../bench/paste'
import * as clips from '../clips/actions'
import { chosen, pickBeside } from '../clips/chosen'
import { copyClips } from '../clips/copy'
import { hearPiece, loopPiece } from '../clips/hearing'
import { printInPlace, printRange } from '../clips/permanent'
import * as treatment from '../clips/treatment'
import { toggleLines } from '../lines/actions'
import * as passages from '../passages/actions'
import { chosenTreatment } from '../session/selected'
import { onShelf } from '../shelf/open'
import { setView } from '../session/view'
import { openTakesOfChosen } from '../takes/takes'
import { node, row } from './steps'
import type { Group } from './keys'

/** Keys of what lies along the song. */
export const ofTime: Group[] = [
  {
    group: 'Lines',
    list: [
      {
        key: 'X',
        says:
          'Open or fold the lines of the row; on a scale: its line; ' +
          'with Shift: a line for anything of the row, or of the treatment of the selected clips',
        does: {
          x: row((c) => toggleLines(c.id)),
          'shift+x': row((c) => setView({ dialog: { kind: 'lines', row: (chosenTreatment() ?? c).id } })),
        },
        each: [
          ['X', 'Open or fold the lines of the row'],
          ['Shift X', 'A line for anything of the row, or of the treatment of the selected clips'],
        ],
      },
      { key: 'M', says: 'On a scale: all that moves it: line, handle, movers' },
      { key: 'Double click', says: 'Put a point; Alt leaves the grid' },
      {
        key: 'Drag',
        says:
          'A point moves, with Ctrl in its value only; moved along it keeps its value, unless with Alt; ' +
          'with Ctrl Shift a copy goes; the line itself does so with Ctrl as a whole; ' +
          'between points it selects a stretch, with Shift a box; with Alt it bends',
      },
      { key: 'I', says: 'On a line: put a point at the playhead' },
      { key: '← →', says: 'On a line: the point before or behind' },
      { key: '↑ ↓', says: 'Selected points up or down; Shift: a tenth' },
      {
        key: 'Enter',
        says: 'Type a value: for the selected points, or held over the stretch; a figure begins it too',
      },
      {
        key: 'Ctrl A',
        says: 'Select the stretch, or all, of every open line of the row: its points move as one',
      },
      { key: 'Ctrl C V', says: 'Copy the selected points, of all lines; put them down at the playhead' },
      { key: 'Delete', says: 'Take the selected points off' },
    ],
  },
  {
    group: 'Clips',
    list: [
      {
        key: 'Drag',
        says:
          'Move a clip, also to another row; Alt leaves the grid, with Ctrl it is a copy. ' +
          'At an edge: move the edge, with Ctrl the neighbour’s too. With Shift Alt: slide its content',
      },
      {
        key: 'Shift drag',
        says:
          'Over rows: draw a range, which meets edges, onsets, sections and the grid; ' +
          'with Alt none of them; on empty air also without Shift; let go with Ctrl: select the clips that it touches',
      },
      { key: 'Ctrl click', says: 'Select clips together' },
      {
        key: 'I',
        on: ['clip', 'range', 'row'],
        says: 'Cut at both ends of the range, else at the playhead',
        does: { i: clips.cut },
      },
      {
        key: 'Shift I',
        on: ['clip', 'range'],
        says: 'Join neighbours of one source again',
        does: { 'shift+i': clips.join },
      },
      {
        key: '/',
        on: ['range'],
        says: 'Treat what lies in it: it is cut there first',
        does: { '/': clips.treatRange },
      },
      {
        key: 'V',
        on: ['clip'],
        says: 'Hear it alone, without the row’s chain; with Shift its row; again ends it',
        does: { v: () => hearPiece('alone'), 'shift+v': () => hearPiece('row') },
        each: [
          ['V', 'Hear the clip alone, without the row’s chain'],
          ['Shift V', 'Hear the clip through its row'],
        ],
      },
      { key: 'L', on: ['clip'], says: 'Loop over it; again ends it', does: { l: loopPiece } },
      { key: 'B', on: ['clip'], says: 'With or without its treatment', does: { b: treatment.toggle } },
      {
        key: 'Enter',
        on: ['clip'],
        says: 'To its treatment; Esc leads back',
        does: { enter: treatment.enter },
      },
      {
        key: 'P',
        on: ['range'],
        says: 'Print what lies in it through its row, where it stands: it is cut there first',
        does: { p: () => printRange() },
      },
      { key: 'Enter', on: ['range'], says: 'Select the clips under it', does: { enter: clips.takeUnder } },
      {
        key: '← →',
        on: ['clip'],
        says: 'A step of the grid',
        does: { left: () => clips.step(-1), right: () => clips.step(1) },
        each: [
          ['←', 'Move it a step of the grid earlier'],
          ['→', 'Move it a step of the grid later'],
        ],
      },
      {
        key: 'Shift ← →',
        on: ['clip'],
        says: 'The clip before or behind it on the row',
        does: { 'shift+left': () => pickBeside(-1), 'shift+right': () => pickBeside(1) },
        each: [
          ['Shift ←', 'Select the clip before it'],
          ['Shift →', 'Select the clip behind it'],
        ],
      },
      { key: 'U', on: ['clip'], says: 'Put it down once more behind itself', does: { u: clips.again } },
      {
        key: 'Y',
        on: ['clip'],
        says: 'Slice it at onsets, the grid or sections: marks are seen before',
        does: { y: clips.openSlices },
      },
      {
        key: 'O',
        on: ['clip'],
        says: 'Shuffle those that are selected',
        does: { o: () => clips.order('shuffle') },
      },
      { key: 'C', on: ['clip'], says: 'Repeat it, each time differing', does: { c: clips.openRepeats } },
      {
        key: 'Ctrl C X V',
        on: ['clip'],
        says: 'Copy, cut; paste at the playhead, also in another project',
        does: {
          'ctrl+c,meta+c': () => copyClips(),
          'ctrl+x,meta+x': () => copyClips().then(() => clips.remove()),
          'ctrl+v,meta+v': () => paste(),
        },
        each: [
          ['Ctrl C', 'Copy the selected clips'],
          ['Ctrl X', 'Cut the selected clips'],
          ['Ctrl V', 'Paste clips at the playhead'],
        ],
      },
      {
        key: 'P',
        on: ['clip'],
        says: 'Print it through its row, where it stands',
        does: { p: () => printInPlace() },
      },
      {
        key: 'T',
        on: ['clip'],
        says: 'Where it comes from: each step back, and whether it holds',
        does: { t: () => clips.traceBack() },
      },
      {
        key: 'Shift T',
        on: ['clip'],
        says: 'The takes of its place',
        does: { 'shift+t': openTakesOfChosen },
      },
      { key: 'W', on: ['clip'], says: 'Put it on the shelf', does: { w: () => onShelf(chosen()) } },
      { key: 'Q', on: ['clip'], says: 'Mute it', does: { q: clips.mute } },
      { key: 'N', on: ['clip'], says: 'Name it', does: { n: clips.rename } },
      { key: 'Delete', on: ['clip'], says: 'Remove it', does: { 'delete,backspace': () => clips.remove() } },
    ],
  },
  {
    group: 'Passages',
    list: [
      {
        key: 'Shift L',
        says: 'Make a passage of the range on the ruler, on the selected rows',
        does: { 'shift+l': () => passages.openMaker() },
      },
      {
        key: '← →',
        says: 'On a passage in the ruler: a step of the grid earlier or later; Shift: its end only',
      },
      { key: 'Double click', says: 'In a course: put a point; on a point with Alt: another shape' },
      {
        key: 'Delete',
        on: ['passage'],
        says: 'Remove it with all that it brought; on a point of a course: the point',
        does: { 'delete,backspace': node((id) => passages.remove(passages.find(id)!)) },
      },
    ],
  },
]
