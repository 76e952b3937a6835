import type { Change, LineView } from '../api/types'
import { findFork, findNode } from './chain'
import { change, notice, theEngine, useSession } from './session'
import { setView, type Stretch, view } from './view'

/* Lines: opened under their row, and what is done with them. Frames and grid go to Go, which works out ticks. */

const project = () => useSession.getState().project

/** The row that a parameter belongs to. */
export function rowOfOwner(owner: string): string {
  const p = project()
  for (const c of p?.channels ?? []) if (c.id === owner || c.sends.some((s) => s.id === owner)) return c.id
  const handle = p?.handles?.find((h) => h.id === owner)
  if (handle) return handle.targets[0] ? rowOfOwner(handle.targets[0].owner) : ''
  return (findNode(p, owner) ?? findFork(p, owner))?.channel.id ?? ''
}

/** Opens a parameter's line under its row; it gets one if it has none. */
export async function openLine(owner: string, name: string, label: string) {
  const row = rowOfOwner(owner)
  if (!row) return
  if (!project()?.lines.some((l) => l.owner === owner && l.name === name)) {
    if (!(await change(`Begin a line for ${label}`, { type: 'line.begin', do: { owner, name } }))) return
  }
  const now = view().lines[row] ?? []
  if (!now.includes(`${owner} ${name}`))
    setView({ lines: { ...view().lines, [row]: [...now, `${owner} ${name}`] } })
  if (view().tide === 'high') setView({ tide: 'mid' })
}

export function foldLine(row: string, key: string) {
  const left = (view().lines[row] ?? []).filter((k) => k !== key)
  setView({ lines: { ...view().lines, [row]: left } })
  const s = view().stretch
  if (s && `${s.owner} ${s.name}` === key) setView({ stretch: null })
}

/** All lines of a row that have points, or none. */
export function toggleLines(row: string) {
  const p = project()
  if ((view().lines[row] ?? []).length) return setView({ lines: { ...view().lines, [row]: [] } })
  const keys = (p?.lines ?? []).filter((l) => rowOfOwner(l.owner) === row).map((l) => `${l.owner} ${l.name}`)
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
})

const edit = (v: LineView, what: string, type: string, fields: Record<string, unknown>): Promise<boolean> =>
  change(`${what} ${labelOf(v)}`, { type, do: fields } as Change)

export const putPoint = (v: LineView, frame: number, value: number, snap = view().grid) =>
  edit(v, 'Put a point on', 'line.put', { ...at(v, frame, frame, snap), value })

/** Moves points; they stay selected where they come to stand. */
export async function movePoints(v: LineView, ticks: number[], by: number, up: number, snap = view().grid) {
  const before = view().stretch
  const others = new Set(ticksOf(v).filter((t) => !ticks.includes(t)))
  const fields = { ...at(v, 0, 0, snap), ticks, by: Math.round(by), up }
  if (!(await edit(v, 'Move points of', 'line.move', fields)) || view().stretch !== before || !before) return
  const now = ticksOf(v).filter((t) => !others.has(t))
  setView({ stretch: { ...before, from: before.from + by, to: before.to + by, ticks: now } })
}

export const setPoints = (
  v: LineView,
  ticks: number[],
  what: { value?: number; shape?: string; bend?: number },
) => edit(v, 'Change points of', 'line.points', { ...at(v), ticks, ...what })

export const cutPoints = (v: LineView, ticks: number[]) =>
  edit(v, 'Take points off', 'line.cut', { ...at(v), ticks })

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

export const removeLine = (v: LineView) =>
  edit(v, 'Remove the line of', 'line.set', { owner: v.owner, name: v.name, points: null })

type Clip = { of: { owner: string; name: string }; points: unknown[]; from: number }
let clipboard: Clip | null = null

/** Copies the selected points, for this parameter or another. */
export function copyPoints(v: LineView, ticks: number[]) {
  const line = project()?.lines.find((l) => l.owner === v.owner && l.name === v.name)
  const points = (line?.points ?? []).filter((p) => ticks.includes(p.tick))
  if (points.length === 0) return notice('Select points first: drag along the line.')
  clipboard = { of: { owner: v.owner, name: v.name }, points, from: points[0]!.tick }
  notice(`${points.length === 1 ? 'A point is' : `${points.length} points are`} kept to be put down.`)
}

/** Puts the copied points down at the playhead; they stay selected. */
export async function pastePoints(v: LineView) {
  if (!clipboard) return notice('There are no points to put down: copy some first.')
  const frame = theEngine()?.heard()?.song ?? 0
  const before = new Set(ticksOf(v))
  if (
    await edit(v, 'Put points down on', 'line.paste', {
      ...at(v, frame),
      points: clipboard.points,
      of: clipboard.of,
    })
  ) {
    const ticks = ticksOf(v).filter((t) => !before.has(t))
    setView({ stretch: { owner: v.owner, name: v.name, from: frame, to: frame, ticks } })
  }
}

const ticksOf = (v: LineView) =>
  project()
    ?.lines.find((l) => l.owner === v.owner && l.name === v.name)
    ?.points.map((p) => p.tick) ?? []
