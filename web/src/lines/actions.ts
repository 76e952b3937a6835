import type { Change, Fields, LineView } from '../api/types'
import { rowSoon } from '../session/outline'
import { chainsOf, pathIn, placeIn, shownChain } from '../document/chain'
import { change } from '../session/changes'
import { keep, type KeptPoints } from '../session/clipboard'
import { place } from '../controls/format'
import { theEngine } from '../session/sound'
import { select } from '../session/selected'
import { notice, theProject } from '../session/store'
import { type Chosen, setView, type Stretch, view } from '../session/view'
import { valueOf } from './face'
import { focusLine } from './lineFocus'
import { pieceFor, rowFor } from './piece'

/* Lines: opened under their row, and what is done with them. Frames and grid go to Go, which works out ticks. */

/** Opens a parameter's line under its row; it gets one if it has none. */
export async function openLine(owner: string, name: string, label: string) {
  if (!(await rowSoon(owner))) return
  const row = rowFor(owner)
  if (!theProject()?.lines.some((l) => l.owner === owner && l.name === name)) {
    if (!(await change(`Begin a line for ${label}`, { type: 'line.begin', do: { owner, name } }))) return
  }
  if (view().channel !== row && !view().clips.length) select(row) // it is brought into sight
  const now = view().lines[row] ?? []
  if (!now.includes(`${owner} ${name}`))
    setView({ lines: { ...view().lines, [row]: [...now, `${owner} ${name}`] } })
  if (view().tide === 'high') setView({ tide: 'mid' })
  focusLine(`${owner} ${name}`)
}

export function foldLine(row: string, key: string) {
  const left = (view().lines[row] ?? []).filter((k) => k !== key)
  setView({ lines: { ...view().lines, [row]: left } })
  const s = view().stretch
  if (s && `${s.owner} ${s.name}` === key) setView({ stretch: null })
}

/** Whether something stands on a row's trial that is not the one shown. */
function onAnotherTrial(row: string, id: string): boolean {
  const c = theProject()?.channels.find((x) => x.id === row)
  if (!c) return false
  const shown = shownChain(c, view().trials).owner
  return chainsOf(c).some(
    (x) => x.owner !== shown && (placeIn(x.owner, x.chain.nodes, id) ?? pathIn(x.owner, x.chain.nodes, id)),
  )
}

/** All lines of a row that have points, of what is shown of it, or none. */
export function toggleLines(row: string) {
  const p = theProject()
  if ((view().lines[row] ?? []).length) return setView({ lines: { ...view().lines, [row]: [] } })
  const keys = (p?.lines ?? [])
    .filter((l) => rowFor(l.owner) === row && !onAnotherTrial(row, l.owner))
    .map((l) => `${l.owner} ${l.name}`)
  if (keys.length === 0) setView({ dialog: { kind: 'lines', row } })
  else
    setView({ lines: { ...view().lines, [row]: keys }, tide: view().tide === 'high' ? 'mid' : view().tide })
}

export const labelOf = (v: LineView) =>
  `${v.param.group ? `${v.param.group}, ` : ''}${v.param.label} of ${v.of}`

const at = (v: LineView, from = 0, to = from, snap = view().grid) => ({
  owner: v.owner,
  name: v.name,
  from: Math.round(from),
  to: Math.round(to),
  snap,
  clip: v.clip,
})

const edit = <T extends Change['type']>(v: LineView, what: string, type: T, fields: Fields<T>) =>
  change(`${what} ${labelOf(v)}`, { type, do: fields } as Change)

export const putPoint = (v: LineView, frame: number, value: number, snap = view().grid) =>
  edit(v, 'Put a point on', 'line.put', { ...at(v, frame, frame, snap), value })

/** Puts a point where the song is, on the line as it goes there; it is selected. */
export async function putAtPlayhead(v: LineView) {
  const frame = Math.round(theEngine()?.heard()?.song ?? 0)
  const before = new Set(ticksOf(v))
  const there = { owner: v.owner, name: v.name, from: frame, to: frame + 1, steps: 2, clip: v.clip }
  const { path } = await theEngine()!.ask('line', there)
  if (!(await putPoint(v, frame, valueOf(v, path[0] ?? place(v.param, v.base))))) return
  const made = ticksOf(v).filter((t) => !before.has(t))
  setView({ stretch: { owner: v.owner, name: v.name, from: frame, to: frame, ticks: made } })
}

/** The selected points of every line, that of the hand first. */
const chosen = (v: LineView, ticks: number[]): Chosen[] => {
  const s = view().stretch
  const more = s?.owner === v.owner && s.name === v.name ? (s.more ?? []) : []
  return [{ owner: v.owner, name: v.name, ticks }, ...more]
}

const together = (lines: unknown[]) => (lines.length > 1 ? `${lines.length} lines` : '')

/** Moves points, or copies of them, of all lines of which some are selected; they stay selected where they come to stand. */
export async function movePoints(
  v: LineView,
  ticks: number[],
  by: number,
  up: number,
  snap = view().grid,
  copy = false,
) {
  const before = view().stretch
  const lines = chosen(v, ticks)
  const others = lines.map((l) => new Set(ticksOf(l).filter((t) => copy || !l.ticks.includes(t))))
  const done = await change(
    `${copy ? 'Copy' : 'Move'} points of ${together(lines) || labelOf(v)}`,
    ...lines.map((l): Change => ({
      type: 'line.move',
      do: {
        owner: l.owner,
        name: l.name,
        from: 0,
        to: 0,
        snap,
        ticks: l.ticks,
        by: Math.round(by),
        up,
        copy,
        clip: pieceFor(l.owner, v.channel)?.id,
      },
    })),
  )
  if (!done || view().stretch !== before || !before) return
  const [mine, ...more] = lines.map((l, i) => ({ ...l, ticks: ticksOf(l).filter((t) => !others[i]!.has(t)) }))
  setView({ stretch: { ...before, from: before.from + by, to: before.to + by, ticks: mine!.ticks, more } })
}

export const setPoints = (
  v: LineView,
  ticks: number[],
  what: { value?: number; shape?: string; bend?: number },
) => edit(v, 'Change points of', 'line.points', { ...at(v), ticks, ...what })

export const cutPoints = (v: LineView, ticks: number[]) => {
  const lines = chosen(v, ticks)
  return change(
    `Take points off ${together(lines) || labelOf(v)}`,
    ...lines.map((l): Change => ({
      type: 'line.cut',
      do: { owner: l.owner, name: l.name, from: 0, to: 0, ticks: l.ticks },
    })),
  )
}

/** Asks for the value of the selected points, or for one that is held over the stretch. */
export const typeValue = (v: LineView, stretch: Stretch, points: boolean, begun?: string) =>
  setView({ dialog: { kind: 'value', v, stretch, points, begun } })

export const holdStretch = (v: LineView, s: Stretch, value: number) =>
  edit(v, 'Hold a stretch of', 'line.hold', { ...at(v, s.from, s.to), value })

export const fillStretch = (v: LineView, s: Stretch, how: string, low: number, high: number, seed: number) =>
  edit(v, 'Fill a stretch of', 'line.fill', {
    ...at(v, s.from, s.to),
    every: view().grid,
    how,
    low,
    high,
    seed,
  })

export const shapeStretch = (v: LineView, s: Stretch, kind: string, low: number, high: number) =>
  edit(v, `Draw a ${kind} into`, 'line.shape', {
    ...at(v, s.from, s.to),
    kind,
    every: view().grid,
    low,
    high,
  })

export const turnStretch = (v: LineView, s: Stretch, how: string, by = 0) =>
  edit(v, `${how[0]!.toUpperCase()}${how.slice(1)} a stretch of`, 'line.turn', {
    ...at(v, s.from, s.to, 0),
    how,
    by,
  })

/** What thinning would leave, asked of Go before anything is done. */
export const thinned = (v: LineView, s: Stretch, by: number) =>
  theEngine()!.ask('thin', { ...at(v, s.from, s.to, 0), by })

export const removeLine = (v: LineView) =>
  edit(v, 'Remove the line of', 'line.remove', { owner: v.owner, name: v.name })

/** Copies the selected points, for this parameter or another; those of several lines together. */
export function copyPoints(v: LineView, ticks: number[]) {
  const kept = chosen(v, ticks).map((c) => ({
    of: { owner: c.owner, name: c.name },
    points: (lineOf(c)?.points ?? []).filter((p) => c.ticks.includes(p.tick)),
  }))
  const count = kept.reduce((n, k) => n + k.points.length, 0)
  if (count === 0) return notice('Select points first: drag along the line.')
  const lines = kept.filter((k) => k.points.length > 0)
  void keep(
    { format: 'shoal points 1', lines },
    `${count === 1 ? 'A point is' : `${count} points${together(lines) && ` of ${together(lines)}`} are`} kept to be put down.`,
  )
}

/** Puts copied points down at the playhead; they stay selected. Those of one line go to the line of the
    hand, or where none is to that which is selected, or back to their own; those of several each to their own. */
export async function pastePoints(clipboard: KeptPoints[], v?: LineView) {
  if (clipboard.length === 0) return notice('There are no points to put down: copy some first.')
  const own = v ?? view().stretch ?? clipboard[0]!.of
  const frame = Math.round(theEngine()?.heard()?.song ?? 0)
  const to = clipboard.length === 1 ? [{ owner: own.owner, name: own.name }] : clipboard.map((k) => k.of)
  const before = to.map((l) => new Set(ticksOf(l)))
  const origin = Math.min(...clipboard.map((k) => k.points[0]!.tick))
  const done = await change(
    `Put points down on ${clipboard.length === 1 ? (v ? labelOf(v) : 'a line') : `${clipboard.length} lines`}`,
    ...to.map((l, i): Change => ({
      type: 'line.paste',
      do: {
        ...l,
        from: frame,
        to: frame,
        snap: view().grid,
        points: clipboard[i]!.points,
        of: clipboard[i]!.of,
        origin,
        clip: pieceFor(l.owner)?.id,
      },
    })),
  )
  if (!done) return
  const [first, ...more] = to.map((l, i) => ({ ...l, ticks: ticksOf(l).filter((t) => !before[i]!.has(t)) }))
  setView({ stretch: { ...first!, from: frame, to: frame, more } })
}

const lineOf = (at: { owner: string; name: string }) =>
  theProject()?.lines.find((l) => l.owner === at.owner && l.name === at.name)

/** All of its points, by their ticks. */
export const ticksOf = (at: { owner: string; name: string }) => lineOf(at)?.points.map((p) => p.tick) ?? []
