import { type KeyboardEvent, type PointerEvent, type RefObject, useState } from 'react'
import type { LineView } from '../api/types'
import { paste } from '../bench/paste'
import { place, step } from '../controls/format'
import type { Lens } from '../document/time'
import { move } from '../session/hand'
import { type Chosen, setView, view } from '../session/view'
import * as lines from './actions'
import { perPixel, valueOf, within, y } from './face'

/** What a hand holds of a line: points, a stretch that is being selected, the flat value, or a bend. */
export type Drag =
  | { kind: 'points'; x: number; y: number; dx: number; dy: number; ticks: number[] }
  | { kind: 'range'; from: number; to: number }
  | { kind: 'box'; x: number; y: number; toX: number; toY: number }
  | { kind: 'flat'; x: number; y: number; place: number }
  | { kind: 'bend'; y: number; tick: number; bend: number; up: boolean }

/** How near to its own value a point that is moved along keeps it. */
const KEEP = 6

/** What a pointer and the keys do to a line: points are moved, a stretch or a box is selected, a flat line is
    set, a segment bent. */
export function useHand(v: LineView, lens: Lens, box: RefObject<SVGSVGElement | null>, row: string) {
  const [drag, setDrag] = useState<Drag | null>(null)
  const [over, setOver] = useState<number | null>(null) // the point under the pointer, by its tick
  const mine = () => {
    const s = view().stretch // as it is now: a key may follow a drag before that is drawn
    return s?.owner === v.owner && s.name === v.name ? s : null
  }
  const where = (e: { clientX: number; clientY: number }) => {
    const r = box.current!.getBoundingClientRect()
    return { x: e.clientX - r.left, y: e.clientY - r.top }
  }
  const ticksIn = (from: number, to: number) =>
    v.points.filter((pt) => pt.frame >= from && pt.frame <= to).map((pt) => pt.tick)
  const select = (from: number, to: number, ticks = ticksIn(from, to), more?: Chosen[]) =>
    setView({ stretch: { owner: v.owner, name: v.name, from, to, ticks, more } })
  const boxed = (b: { x: number; y: number; toX: number; toY: number }) => {
    const inside = (p: number, a: number, z: number) => p >= Math.min(a, z) && p <= Math.max(a, z)
    return v.points.filter((pt) => inside(lens.x(pt.frame), b.x, b.toX) && inside(y(pt.place), b.y, b.toY))
  }

  const nearest = (w: { x: number; y: number }) =>
    v.points.find((pt) => Math.hypot(lens.x(pt.frame) - w.x, y(pt.place) - w.y) < 8)

  const down = (e: PointerEvent) => {
    if (e.button !== 0) return
    e.stopPropagation()
    box.current!.focus()
    e.currentTarget.setPointerCapture(e.pointerId)
    const w = where(e)
    const near = nearest(w)
    if (near) {
      const held = mine()?.ticks.includes(near.tick) || e.shiftKey
      const ticks = held ? [...new Set([...(mine()?.ticks ?? []), near.tick])] : [near.tick]
      const frames = v.points.filter((pt) => ticks.includes(pt.tick)).map((pt) => pt.frame)
      select(Math.min(...frames), Math.max(...frames), ticks, held ? mine()?.more : undefined)
      setDrag({ kind: 'points', x: w.x, y: w.y, dx: 0, dy: 0, ticks })
      return
    }
    if (e.shiftKey) return setDrag({ kind: 'box', x: w.x, y: w.y, toX: w.x, toY: w.y })
    if (v.count === 0) return setDrag({ kind: 'flat', x: w.x, y: w.y, place: place(v.param, v.base) })
    const before = v.points.findLast((pt) => lens.x(pt.frame) < w.x)
    if (e.altKey && before) {
      const next = v.points.find((pt) => pt.frame > before.frame)
      return setDrag({
        kind: 'bend',
        y: w.y,
        tick: before.tick,
        bend: before.bend ?? 0,
        up: (next?.place ?? 0) > before.place,
      })
    }
    setDrag({ kind: 'range', from: w.x, to: w.x })
  }
  const drags = (e: PointerEvent) => {
    const w = where(e)
    if (!drag) return setOver(nearest(w)?.tick ?? null)
    if (drag.kind === 'points') {
      const dx = e.ctrlKey ? 0 : w.x - drag.x
      const dy = w.y - drag.y
      // who moves a point along keeps its value, unless Alt lets it go
      const to = { dx, dy: Math.abs(dx) > KEEP && Math.abs(dy) < KEEP && !e.altKey ? 0 : dy }
      setDrag({ ...drag, ...to })
      if (mine()?.more?.length) setView({ pull: to })
    }
    if (drag.kind === 'box') setDrag({ ...drag, toX: w.x, toY: w.y })
    if (drag.kind === 'range') setDrag({ ...drag, to: w.x })
    if (drag.kind === 'flat' && Math.abs(w.x - drag.x) > Math.abs(w.y - drag.y) + 4) {
      setDrag({ kind: 'range', from: drag.x, to: w.x })
    } else if (drag.kind === 'flat' && Math.abs(w.y - drag.y) > 2) {
      const to = within(place(v.param, v.base) - (w.y - drag.y) * perPixel)
      setDrag({ ...drag, place: to })
      move(v.owner, v.name, valueOf(v, to), lines.labelOf(v))
    }
    if (drag.kind === 'bend') {
      const by = (w.y - drag.y) * perPixel * 2 * (drag.up ? 1 : -1)
      setDrag({ ...drag, y: w.y, bend: Math.min(1, Math.max(-1, drag.bend + by)) })
    }
  }
  const up = (e: PointerEvent) => {
    const d = drag
    setDrag(null)
    if (view().pull) setView({ pull: null })
    if (!d) return
    if (d.kind === 'points' && (Math.abs(d.dx) > 2 || Math.abs(d.dy) > 2)) {
      const by = Math.abs(d.dx) > 2 ? d.dx * lens.perPixel : 0
      void lines.movePoints(v, d.ticks, by, -d.dy * perPixel, e.altKey ? 0 : undefined)
    }
    if (d.kind === 'range') {
      const [a, b] = [d.from, d.to].sort((m, n) => m - n) as [number, number]
      if (b - a < 3) return setView({ stretch: null })
      select(lens.frame(a), lens.frame(b))
    }
    if (d.kind === 'box') {
      const found = boxed(d)
      const ticks = [...new Set([...(mine()?.ticks ?? []), ...found.map((pt) => pt.tick)])]
      const frames = v.points.filter((pt) => ticks.includes(pt.tick)).map((pt) => pt.frame)
      if (ticks.length) select(Math.min(...frames), Math.max(...frames), ticks, mine()?.more)
    }
    if (d.kind === 'bend') void lines.setPoints(v, [d.tick], { bend: d.bend })
  }
  const key = (e: KeyboardEvent) => {
    const ticks = mine()?.ticks ?? []
    const first = v.points.find((pt) => pt.tick === ticks[0])
    const done = () => {
      e.preventDefault()
      e.stopPropagation()
    }
    if ((e.ctrlKey || e.metaKey) && e.key === 'a') {
      done()
      void lines.selectAll(v, row)
    } else if ((e.ctrlKey || e.metaKey) && e.key === 'c') {
      done()
      lines.copyPoints(v, ticks)
    } else if ((e.ctrlKey || e.metaKey) && e.key === 'v') {
      done()
      void paste({ line: v })
    } else if (e.key === 'Escape' && mine()) {
      done()
      setView({ stretch: null })
    } else if (!ticks.length || e.ctrlKey || e.metaKey) return
    else if (e.key === 'Delete' || e.key === 'Backspace') {
      done()
      void lines.cutPoints(v, ticks).then(() => setView({ stretch: null }))
    } else if ((e.key === 'ArrowUp' || e.key === 'ArrowDown') && first) {
      done()
      const next = step(v.param, first.value, (e.key === 'ArrowUp' ? 1 : -1) * (e.shiftKey ? 0.1 : 1))
      void lines.movePoints(v, ticks, 0, place(v.param, next) - first.place)
    }
  }
  return { drag, over, where, down, drags, up, key, leave: () => setOver(null) }
}
