import type { LineView } from '../api/types'
import { place } from '../controls/format'
import type { Lens } from '../document/time'
import { move } from '../session/hand'
import { type Chosen, setView, type Stretch } from '../session/view'
import * as lines from './actions'
import { perPixel, valueOf, within, y } from './face'

/** What a hand holds of a line: points, a stretch that is being selected, the flat value, or a bend. */
export type Drag =
  | { kind: 'points'; x: number; y: number; dx: number; dy: number; ticks: number[]; copy: boolean }
  | { kind: 'range'; from: number; to: number }
  | { kind: 'box'; x: number; y: number; toX: number; toY: number }
  | { kind: 'flat'; x: number; y: number; place: number }
  | { kind: 'bend'; y: number; tick: number; bend: number; up: boolean }

/** A line under a hand: what is seen of it, and what is selected of it. */
export interface Line {
  v: LineView
  lens: Lens
  row: string
  /** How wide it is seen, in pixels. */
  width: number
  mine: () => Stretch | null
  select: (from: number, to: number, ticks?: number[], more?: Chosen[]) => void
}

interface Spot {
  x: number
  y: number
}

/** The keys that are held with a pointer. */
interface With {
  shiftKey: boolean
  altKey: boolean
  ctrlKey: boolean
}

/** How near to its own value a point that is moved along keeps it. */
const KEEP = 6

export const nearest = ({ v, lens }: Line, w: Spot) =>
  v.points.find((pt) => Math.hypot(lens.x(pt.frame) - w.x, y(pt.place) - w.y) < 8)

/** Whether a hand is on the line itself, between its points. */
function onBody({ v, width }: Line, w: Spot) {
  if (v.count === 0) return false
  const at = v.path[Math.round((w.x / width) * (v.path.length - 1))]
  return at !== undefined && Math.abs(y(at) - w.y) < 8
}

/** Selects points by their ticks, and the stretch that they span. */
function selectPoints(l: Line, ticks: number[], more?: Chosen[]) {
  const frames = l.v.points.filter((pt) => ticks.includes(pt.tick)).map((pt) => pt.frame)
  if (frames.length) l.select(Math.min(...frames), Math.max(...frames), ticks, more)
}

/** A press: takes hold of a point, of the flat value, of a bend, or begins to select. */
export function press(l: Line, w: Spot, e: With): Drag {
  const { v, lens } = l
  const near = nearest(l, w)
  if (near) {
    const held = l.mine()?.ticks.includes(near.tick) || e.shiftKey
    const ticks = held ? [...new Set([...(l.mine()?.ticks ?? []), near.tick])] : [near.tick]
    selectPoints(l, ticks, held ? l.mine()?.more : undefined)
    return { kind: 'points', x: w.x, y: w.y, dx: 0, dy: 0, ticks, copy: false }
  }
  if (e.ctrlKey && onBody(l, w)) {
    // taken by its body it goes as a whole, or what is selected of it does
    const ticks = l.mine()?.ticks.length ? l.mine()!.ticks : lines.ticksOf(v)
    if (!l.mine()?.ticks.length) selectPoints(l, ticks)
    return { kind: 'points', x: w.x, y: w.y, dx: 0, dy: 0, ticks, copy: false }
  }
  if (e.shiftKey) return { kind: 'box', x: w.x, y: w.y, toX: w.x, toY: w.y }
  if (v.count === 0) return { kind: 'flat', x: w.x, y: w.y, place: place(v.param, v.base) }
  const before = v.points.findLast((pt) => lens.x(pt.frame) < w.x)
  if (!e.altKey || !before) return { kind: 'range', from: w.x, to: w.x }
  const next = v.points.find((pt) => pt.frame > before.frame)
  const up = (next?.place ?? 0) > before.place
  return { kind: 'bend', y: w.y, tick: before.tick, bend: before.bend ?? 0, up }
}

/** What is held follows the pointer. */
export function pull(l: Line, d: Drag, w: Spot, e: With): Drag {
  switch (d.kind) {
    case 'points':
      return pullPoints(l, d, w, e)
    case 'box':
      return { ...d, toX: w.x, toY: w.y }
    case 'range':
      return { ...d, to: w.x }
    case 'flat':
      return pullFlat(l, d, w)
    case 'bend': {
      const by = (w.y - d.y) * perPixel * 2 * (d.up ? 1 : -1)
      return { ...d, y: w.y, bend: Math.min(1, Math.max(-1, d.bend + by)) }
    }
  }
}

function pullPoints(l: Line, d: Drag & { kind: 'points' }, w: Spot, e: With): Drag {
  const copy = e.ctrlKey && e.shiftKey
  const dx = e.ctrlKey && !copy ? 0 : w.x - d.x
  const dy = w.y - d.y
  // who moves a point along keeps its value, unless Alt lets it go
  const to = { dx, dy: Math.abs(dx) > KEEP && Math.abs(dy) < KEEP && !e.altKey ? 0 : dy }
  if (l.mine()?.more?.length) setView({ pull: { ...to, copy } })
  return { ...d, ...to, copy }
}

function pullFlat({ v }: Line, d: Drag & { kind: 'flat' }, w: Spot): Drag {
  if (Math.abs(w.x - d.x) > Math.abs(w.y - d.y) + 4) return { kind: 'range', from: d.x, to: w.x }
  if (Math.abs(w.y - d.y) <= 2) return d
  const to = within(place(v.param, v.base) - (w.y - d.y) * perPixel)
  move(v.owner, v.name, valueOf(v, to), lines.labelOf(v))
  return { ...d, place: to }
}

/** What was held is let go: points are where they were taken to, a range or what a box holds is selected. */
export function letGo(l: Line, d: Drag, e: With) {
  const { v, lens } = l
  if (d.kind === 'points' && (Math.abs(d.dx) > 2 || Math.abs(d.dy) > 2)) {
    const by = Math.abs(d.dx) > 2 ? d.dx * lens.perPixel : 0
    void lines.movePoints(v, d.ticks, by, -d.dy * perPixel, e.altKey ? 0 : undefined, d.copy)
  }
  if (d.kind === 'range') {
    const [a, b] = [d.from, d.to].sort((m, n) => m - n) as [number, number]
    if (b - a < 3) return setView({ stretch: null })
    l.select(lens.frame(a), lens.frame(b))
  }
  if (d.kind === 'box') {
    const found = boxed(l, d)
    selectPoints(l, [...new Set([...(l.mine()?.ticks ?? []), ...found.map((pt) => pt.tick)])], l.mine()?.more)
  }
  if (d.kind === 'bend') void lines.setPoints(v, [d.tick], { bend: d.bend })
}

function boxed({ v, lens }: Line, b: Drag & { kind: 'box' }) {
  const inside = (p: number, a: number, z: number) => p >= Math.min(a, z) && p <= Math.max(a, z)
  return v.points.filter((pt) => inside(lens.x(pt.frame), b.x, b.toX) && inside(y(pt.place), b.y, b.toY))
}
