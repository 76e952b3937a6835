import type { Channel, Clip } from '../api/types'
import { choice } from '../controls/format'
import { newId } from '../document/ids'
import { along } from '../sections/along'
import { change } from '../session/changes'
import { rowOfOwner } from '../session/outline'
import { theEngine } from '../session/sound'
import { notice, session, theProject, useSession } from '../session/store'
import { type Piece, setView, view } from '../session/view'
import { gridStep } from '../session/view'
import { chosen, rowsOf } from './chosen'

/* Clips: how far a hand has carried them goes to Go, which finds their place on the grid. */

type How = { by?: number; ticks?: number; free?: boolean; copy?: boolean; row?: string; near?: number }

/** What places snap to: edges of clips and sections that are near, else the grid. */
export const snap = (free: boolean, near = 0) => (free ? {} : { grid: view().grid, near: Math.round(near) })

const many = (clips: Clip[]) => (clips.length === 1 ? clips[0]!.name : `${clips.length} clips`)

/** Moves clips by frames or ticks, to the grid unless free; with copy they are put down once more. */
export function move(clips: Clip[], how: How) {
  const run = (taken: boolean) =>
    void change(
      `${how.copy ? 'Copy' : 'Move'} ${many(clips)}`,
      ...clips.map((clip) => ({
        type: 'clip.move' as const,
        do: {
          id: clip.id,
          by: Math.round(how.by ?? 0),
          ticks: how.ticks ?? 0,
          // several keep their distances
          snap: how.free || clips.length > 1 ? 0 : view().grid,
          near: how.free || clips.length > 1 ? 0 : Math.round(how.near ?? 0),
          along: taken,
          copy: how.copy ? newId() : '',
          row: how.row ?? '',
        },
      })),
    )
  // where a row has no lines there is nothing to ask
  const rows = rowsOf(clips)
  const lines = useSession.getState().project?.lines ?? []
  if (!how.row && lines.some((l) => l.points.length > 0 && rows.includes(rowOfOwner(l.owner)))) along(run)
  else run(false)
}

export const step = (direction: number) => {
  const clips = chosen()
  if (clips.length) move(clips, { ticks: direction * gridStep() })
}

/** Moves an edge; with both that of the neighbour, too. */
export const trim = (
  clip: Clip,
  edge: 'begin' | 'end',
  by: number,
  how: { free: boolean; both: boolean; near: number },
) =>
  change(`Move the ${edge} of ${clip.name}`, {
    type: 'clip.trim',
    do: { id: clip.id, edge, by: Math.round(by), both: how.both, snap: snap(how.free, how.near) },
  })

/** Slides the content inside the edges. */
export const slip = (clips: Clip[], by: number) =>
  change(
    `Slide the content of ${many(clips)}`,
    ...clips.map((c) => ({ type: 'clip.slip' as const, do: { id: c.id, by: Math.round(by) } })),
  )

type Set = Omit<Extract<Parameters<typeof change>[1], { type: 'clip.set' }>['do'], 'id'>

/** Sets something of clips, by what each of them is now. */
export const set = (label: string, clips: Clip[], what: (c: Clip) => Set) =>
  change(
    `${label} ${many(clips)}`,
    ...clips.map((c) => ({ type: 'clip.set' as const, do: { id: c.id, ...what(c) } })),
  )

export const remove = (clips = chosen()) => {
  if (!clips.length) return
  setView({ clips: [] })
  void change(
    `Remove ${many(clips)}`,
    ...clips.map((c) => ({ type: 'clip.remove' as const, do: { id: c.id } })),
  )
}

/** Where a key or a button cuts: both ends of the range that is drawn on rows, else the playhead. */
export function cut() {
  const v = view()
  const at = v.piece ? [v.piece.from, v.piece.to] : [theEngine()?.heard()?.song ?? 0]
  const clips = v.piece ? [] : v.clips
  const rows = v.piece?.rows ?? (clips.length ? [] : v.rows.length ? v.rows : [v.channel])
  return change(v.piece ? 'Cut at the range' : 'Cut at the playhead', {
    type: 'clips.split',
    do: { ids: clips, rows, at: at.map(Math.round), snap: {} },
  })
}

/** Puts neighbours of one source together again. */
export const join = () => {
  const ids = view().clips.length ? view().clips : under(view().piece)
  return change('Join clips', { type: 'clips.join', do: { ids } })
}

/** The clips that a range lies over. */
function under(piece: Piece | null): string[] {
  if (!piece) return []
  const starts = session().timeline?.clips ?? {}
  const least = GRAZE * (theProject()?.sampleRate ?? 48000)
  const over = (x: Clip) =>
    Math.min(starts[x.id]! + x.frames, piece.to) - Math.max(starts[x.id]!, piece.from) >
    Math.min(least, x.frames / 2)
  return (theProject()?.channels ?? [])
    .filter((c) => piece.rows.includes(c.id))
    .flatMap((c) => c.clips.filter(over))
    .map((x) => x.id)
}

/** For how many seconds a range may lie over a clip that it only grazes: the edges of what follows the song lie on
    ticks, which a range that meets an onset does not. */
const GRAZE = 0.004

/** Selects all clips that the range lies over. */
export const takeUnder = () => setView({ clips: under(view().piece) })

/** The same, and the range is put away. */
export const selectUnder = () => setView({ clips: under(view().piece), stage: '', piece: null, dialog: null })

/** Selects what lies in the range and lets an effect be chosen for it: it is cut there first, in the same change. */
export function treatRange() {
  takeUnder()
  if (!view().clips.length) return notice('There is no clip in the range to treat.')
  setView({ dialog: { kind: 'effects', owner: '', index: 0, clips: view().clips } })
}

/** Puts clips down once more, directly behind themselves. */
export const again = () => {
  const clips = chosen()
  const starts = session().timeline?.clips ?? {}
  if (!clips.length) return
  const from = Math.min(...clips.map((c) => starts[c.id] ?? 0))
  const to = Math.max(...clips.map((c) => (starts[c.id] ?? 0) + c.frames))
  return move(clips, { by: to - from, copy: true, free: true })
}

/** Lets the first of those selected be given another name. */
export const rename = () => view().clips[0] && setView({ renaming: view().clips[0] })

/** Puts clips in another order; by chance, another each time. */
export const order = (how: 'reverse' | 'shuffle' | 'grid') => {
  const ids = view().clips
  const says = {
    reverse: 'Turn the order of clips round',
    shuffle: 'Shuffle clips',
    grid: 'Move clips to the grid',
  }
  const seed = Math.floor(Math.random() * 2 ** 31)
  return change(says[how], { type: 'clips.order', do: { ids, how, seed, grid: view().grid } })
}

/** Lets an edge of clips fade for a note length, where that is what was typed: "1/8", "1/4d". */
export function fadeFor(clips: Clip[], edge: 'begin' | 'end', typed: string): boolean {
  const cycles = session().strip?.cycles ?? []
  const index = typed.includes('/')
    ? choice(
        cycles.map((c) => c.name),
        typed.trim().toLowerCase(),
      )
    : null
  if (index === null) return false
  const ticks = Math.round(cycles[index]!.quarters * 960)
  void change(
    `Fade ${many(clips)} for ${cycles[index]!.name}`,
    ...clips.map((c) => ({ type: 'clip.fade' as const, do: { id: c.id, edge, ticks } })),
  )
  return true
}

/** Makes clips longer or shorter, so that they last a whole number of bars; their pitch stays. */
export const fitToBars = (clips: Clip[]) =>
  change(
    `Fit ${many(clips)} to whole bars`,
    ...clips.map((c) => ({ type: 'clip.fit' as const, do: { id: c.id, bars: true } })),
  )

/** Lets a clip begin and end with the loop; its pitch stays. */
export function fitToLoop(clip: Clip) {
  const { loop } = view()
  if (!loop) return
  const range = { from: Math.round(loop.from), to: Math.round(loop.to) }
  return change(`Fit ${clip.name} to the loop`, { type: 'clip.fit', do: { id: clip.id, range } })
}

export const openSlices = () =>
  view().clips.length && setView({ dialog: { kind: 'slices', clips: view().clips } })

export function openRepeats() {
  const [clip] = view().clips
  if (clip) setView({ dialog: { kind: 'repeats', clip } })
}

export const mute = () => {
  const clips = chosen()
  const on = !clips.every((c) => c.mute)
  return clips.length ? set(on ? 'Mute' : 'Unmute', clips, () => ({ mute: on })) : undefined
}

/** What happens where clips of a row overlap. */
export const setOverlaps = (row: Channel, overlaps: 'sum' | 'cover' | 'fade') =>
  change(`Change what overlaps on ${row.name} do`, { type: 'channel.set', do: { id: row.id, overlaps } })

/** Shows where the sound of a clip comes from. */
export function traceBack(clips: Clip[] = chosen()) {
  if (clips[0]) setView({ dialog: { kind: 'lineage', clip: clips[0].id }, bench: true })
}
