import * as forks from '../bench/forks'
import { paste } from '../bench/paste'
import * as several from '../bench/several'
import { duplicateStage, shiftStage, toggleChain } from '../bench/stages'
import { toggleWayIn } from '../takes/wayIn'
import { toggleLine } from '../waterline/line'
import { shownChain } from '../document/chain'
import * as sends from '../routing/sends'
import { listenTo } from '../session/listening'
import { holdWithout } from '../session/without'
import { setView, view } from '../session/view'
import * as open from './open'
import { node, path, row, type Selection, send, step } from './steps'
import type { Group } from './keys'

/** What stands in a chain. */
const inChain: Selection[] = ['stage', 'fork']

/** Keys of what stands in a chain, and of sends. */
export const ofChains: Group[] = [
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
        each: [],
      },
      {
        key: 'Alt ← →',
        says: 'Move the stage earlier or later',
        does: { 'alt+left': node((id) => shiftStage(id, -1)), 'alt+right': node((id) => shiftStage(id, 1)) },
        each: [
          ['Alt ←', 'Move it earlier'],
          ['Alt →', 'Move it later'],
        ],
      },
      {
        key: 'P',
        on: inChain,
        says: 'Put the row’s line behind it: what stands before is printed behind the music; again lifts it',
        does: { p: node(toggleLine) },
      },
      {
        key: 'Shift I',
        on: inChain,
        says: 'Put the row’s way in behind it: what stands before is recorded; again takes it away',
        does: { 'shift+i': node(toggleWayIn) },
      },
      { key: 'B', on: inChain, says: 'Bypass it', does: { b: () => several.bypass() } },
      {
        key: '5',
        says: 'While it is held: without the stage or fork under the pointer, else the selected one; with it where it is bypassed',
        does: { '5': holdWithout },
      },
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
        key: 'Alt W',
        says: 'Presets of whole rows: chain, level, pan, width in one',
        does: { 'alt+w': row(open.rowPresets) },
      },
      {
        key: 'J',
        on: inChain,
        says: 'Hear the chain up to here; with Shift only what it changes; Esc ends it',
        does: { j: node((id) => listenTo(id, false)), 'shift+j': node((id) => listenTo(id, true)) },
        each: [
          ['J', 'Hear the chain up to here'],
          ['Shift J', 'Hear only what it changes'],
        ],
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
        each: [
          ['Ctrl C', 'Copy the selected stages'],
          ['Ctrl X', 'Cut the selected stages'],
          ['Ctrl V', 'Paste stages or clips'],
        ],
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
        each: [
          ['V', 'Listen to the path alone'],
          ['Shift V', 'Listen to the path besides others'],
        ],
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
        each: [
          ['Alt ↑', 'Move the path up'],
          ['Alt ↓', 'Move the path down'],
        ],
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
]
