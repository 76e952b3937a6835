import * as forks from '../bench/forks'
import { paste } from '../bench/paste'
import * as several from '../bench/several'
import { duplicateStage, shiftStage, toggleChain } from '../bench/stages'
import { zoomBy } from '../board/zoom'
import { duplicateRow, toggleMute } from '../board/rows'
import * as clips from '../clips/actions'
import { pickBeside } from '../clips/chosen'
import { copyClips } from '../clips/copy'
import { hearPiece, loopPiece } from '../clips/hearing'
import { printInPlace, printRange } from '../clips/permanent'
import * as treatment from '../clips/treatment'
import { clearMarks } from '../controls/Depth'
import { shownChain } from '../document/chain'
import { toggleLines } from '../lines/actions'
import * as passages from '../passages/actions'
import * as sends from '../routing/sends'
import { hearRowAlone, makeGroup, openSend, openTrace } from '../routing/gestures'
import { takeBack } from '../session/changes'
import { hear, listenTo, showDepth } from '../session/listening'
import { chosenTreatment } from '../session/selected'
import { locate, toggleLoop, togglePlay, toggleSolo } from '../session/transport'
import { setView, view } from '../session/view'
import { turnTheme } from '../theme/theme'
import * as trial from '../trials/actions'
import * as open from './open'
import { node, path, row, type Selection, send, shiftRow, step, stepBar, turnAir } from './steps'

/** A key, as the card shows it and docs/keys.md lists it, and what it does on the board, by hotkey, while one of these is
    selected; without any it does it always, unless what is selected has another use for it. Where it does nothing
    there, what has the focus does it. Those that are blind work while trials are compared blind too. */
export type Key = {
  key: string
  says: string
  on?: Selection[]
  does?: Record<string, () => unknown>
  blind?: boolean
}

/** What a key does, with what it is for. */
export const inFull = (k: Key) =>
  k.on ? `On a ${k.on.join(' or ')}: ${k.says[0]!.toLowerCase()}${k.says.slice(1)}` : k.says

/** What stands in a chain. */
const inChain: Selection[] = ['stage', 'fork']

/** Every key there is. */
export const keys: { group: string; list: Key[] }[] = [
  {
    group: 'Listening',
    list: [
      {
        key: 'Space',
        says: 'Play, stop (a second stop cuts the tails)',
        does: { space: togglePlay },
        blind: true,
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
        blind: true,
      },
      {
        key: 'M',
        says: 'Main output in mono, or not',
        does: { m: () => hear({ mono: !view().mono }) },
        blind: true,
      },
      { key: 'Z', says: 'Soundings: what was noticed', does: { z: open.soundings }, blind: true },
    ],
  },
  {
    group: 'Rows',
    list: [
      {
        key: '↑ ↓',
        says: 'Select the row above or below',
        does: { up: step('up'), down: step('down') },
        blind: true,
      },
      {
        key: 'Alt ↑ ↓',
        says: 'Move the row up or down',
        does: {
          'alt+up': shiftRow(-1),
          'alt+down': shiftRow(1),
        },
      },
      {
        key: 'Shift ↑ ↓',
        says: 'Fold the row to a line, or open its air',
        does: { 'shift+up': turnAir(-1), 'shift+down': turnAir(1) },
        blind: true,
      },
      { key: 'R', says: 'Rows: find, hide and show them', does: { r: open.rows } },
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
        says: 'Print the row to a new track; with Shift: stems and mixes, several files at once',
        does: { p: row(open.print), 'shift+p': open.stems },
      },
      { key: 'Shift Ctrl click', says: 'On names: select rows together' },
      { key: 'S', says: 'Send the selected rows to a return, also a new one', does: { s: openSend } },
      { key: 'A', says: 'Gather the selected rows in a group', does: { a: makeGroup } },
      {
        key: 'D',
        says: 'Hear the row without its returns; with Shift only what comes back; Esc ends it',
        does: { d: () => hearRowAlone('dry'), 'shift+d': () => hearRowAlone('share') },
      },
      {
        key: 'T',
        says: 'Trace the row to the main output, or to the second selected row',
        does: { t: openTrace },
      },
    ],
  },
  {
    group: 'Stages',
    list: [
      {
        key: '/',
        says: 'List of effects; Enter adds, Shift Enter adds switched off',
        does: { '/': open.effects },
      },
      { key: 'Enter', says: 'From the stage to its scales; with Shift to its plumbs; Esc leads back' },
      {
        key: '← →',
        says: 'Along the signal, into a fork and out of it; Shift: several stages',
        does: {
          left: step('left'),
          right: step('right'),
          'shift+left': () => several.extend(-1),
          'shift+right': () => several.extend(1),
        },
      },
      {
        key: 'Alt ← →',
        says: 'Move the stage earlier or later',
        does: { 'alt+left': node((id) => shiftStage(id, -1)), 'alt+right': node((id) => shiftStage(id, 1)) },
      },
      { key: 'B', on: inChain, says: 'Bypass it', does: { b: () => several.bypass() } },
      { key: 'Shift B', says: 'Bypass the whole chain of the row', does: { 'shift+b': row(toggleChain) } },
      { key: 'R', on: ['stage'], says: 'Replace it where it stands', does: { r: node(open.replacements) } },
      { key: 'U', on: inChain, says: 'Duplicate it', does: { u: node(duplicateStage) } },
      {
        key: 'I',
        on: ['stage'],
        says: 'Keep it on the bench beside the next, or not',
        does: { i: node((id) => setView({ pinned: view().pinned === id ? '' : id })) },
      },
      {
        key: 'W',
        on: ['stage', 'fork', 'path'],
        says: 'Its presets',
        does: { w: node(open.presets) },
      },
      {
        key: 'Shift W',
        says: 'Presets of the chain',
        does: { 'shift+w': row((c) => open.chainPresets(shownChain(c, view().trials).owner)) },
      },
      {
        key: 'J',
        on: inChain,
        says: 'Hear the chain up to here; with Shift only what it changes; Esc ends it',
        does: { j: node((id) => listenTo(id, false)), 'shift+j': node((id) => listenTo(id, true)) },
      },
      {
        key: 'Esc',
        says: 'Puts away what was opened; then ends listening to a part, and selecting several',
        does: { escape: open.nothing },
      },
      {
        key: 'Ctrl C X V',
        says: 'Copy, cut, paste stages, also to another project',
        does: {
          'ctrl+c,meta+c': () => several.copy(),
          'ctrl+x,meta+x': () => several.copy().then(() => several.remove()),
          'ctrl+v,meta+v': () => paste(),
        },
      },
      { key: 'Delete', on: inChain, says: 'Remove it', does: { 'delete,backspace': () => several.remove() } },
    ],
  },
  {
    group: 'Forks',
    list: [
      {
        key: 'F',
        says: 'The selected stages become a path beside a dry one that is off',
        does: { f: forks.forkSelection },
      },
      { key: '↑ ↓', says: 'On a path: across the paths; above the first, the fork itself' },
      {
        key: 'V',
        says: 'Listen to the selected path alone; with Shift besides others; Esc ends it',
        does: {
          v: path((_, p) => forks.listenToPath(p.id, false)),
          'shift+v': path((_, p) => forks.listenToPath(p.id, true)),
        },
      },
      {
        key: 'J',
        on: ['path'],
        says: 'Listen to it, too',
        does: { j: path((_, p) => forks.listenToPath(p.id, false)) },
      },
      { key: 'B', on: ['path'], says: 'Mute it', does: { b: path((_, p) => forks.toggleMute(p)) } },
      { key: 'U', on: ['path'], says: 'Duplicate it', does: { u: path((_, p) => forks.duplicatePath(p)) } },
      {
        key: 'Delete',
        on: ['path'],
        says: 'Remove it',
        does: { 'delete,backspace': path((f, p) => forks.removePath(f, p)) },
      },
      {
        key: 'Alt ↑ ↓',
        on: ['path'],
        says: 'Move it among the others',
        does: {
          'alt+up': path((f, p) => forks.shiftPath(f, p, -1)),
          'alt+down': path((f, p) => forks.shiftPath(f, p, 1)),
        },
      },
      {
        key: 'Shift W',
        on: ['path'],
        says: 'Presets of its chain',
        does: { 'shift+w': path((_, p) => open.chainPresets(p.id)) },
      },
    ],
  },
  {
    group: 'Sends',
    list: [
      { key: 'Q', on: ['send'], says: 'Mute it', does: { q: send(sends.toggleMute) } },
      { key: 'Delete', on: ['send'], says: 'Remove it', does: { 'delete,backspace': send(sends.remove) } },
    ],
  },
  {
    group: 'Lines',
    list: [
      {
        key: 'X',
        says: 'Open or fold the lines of the row; on a scale: its line; with Shift: a line for anything of the row, or of the treatment of the selected clips',
        does: {
          x: row((c) => toggleLines(c.id)),
          'shift+x': row((c) => setView({ dialog: { kind: 'lines', row: (chosenTreatment() ?? c).id } })),
        },
      },
      { key: 'M', says: 'On a scale: all that moves it: line, handle, movers' },
      { key: 'Double click', says: 'Put a point; Alt leaves the grid' },
      {
        key: 'Drag',
        says: 'A point moves, with Ctrl in its value only; moved along it keeps its value, unless with Alt; between points it selects a stretch, with Shift a box; with Alt it bends',
      },
      { key: '↑ ↓', says: 'Selected points up or down; Shift: a tenth' },
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
        says: 'Move a clip, also to another row; Alt leaves the grid, with Ctrl it is a copy. At an edge: move the edge, with Ctrl the neighbour’s too. With Shift Alt: slide its content',
      },
      {
        key: 'Shift drag',
        says: 'Over rows: draw a range, which meets edges, onsets, sections and the grid; with Alt none of them; on empty air also without Shift; let go with Ctrl: select the clips that it touches',
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
      },
      {
        key: 'Shift ← →',
        on: ['clip'],
        says: 'The clip before or behind it on the row',
        does: { 'shift+left': () => pickBeside(-1), 'shift+right': () => pickBeside(1) },
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
      },
      {
        key: 'P',
        on: ['clip'],
        says: 'Print it through its row, where it stands',
        does: { p: () => printInPlace() },
      },
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
  {
    group: 'Trials',
    list: [
      {
        key: 'O',
        says: 'Keep the same stages in another order; with Shift a copy',
        does: { o: row(trial.keepOtherOrder), 'shift+o': row((c) => trial.keep(c)) },
      },
      {
        key: 'Y',
        says: 'Hear the next trial; with Shift the one before',
        does: { y: row((c) => trial.hearNext(c, 1)), 'shift+y': row((c) => trial.hearNext(c, -1)) },
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
        blind: true,
      },
      {
        key: '+ −',
        says: 'Higher or lower rows',
        does: {
          '+,=': () => setView({ rowHeight: Math.min(view().rowHeight + 9, 150) }),
          '-': () => setView({ rowHeight: Math.max(view().rowHeight - 9, 48) }),
        },
        blind: true,
      },
      {
        key: '[ ]',
        says: 'Zoom out or in',
        does: { '[': () => zoomBy(1.5), ']': () => zoomBy(1 / 1.5) },
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
