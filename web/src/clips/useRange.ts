import { type PointerEvent, useRef } from 'react'
import type { Timeline } from '../api/types'
import { barAt, type Lens } from '../document/time'
import { theProject } from '../session/store'
import { selectUnder } from './actions'
import { onsetsNear } from './onsets'
import { setView, view } from '../session/view'
import { within } from '../theme/size'

/** How near something has to be for an end of the range to meet it, in pixels. */
const NEAR = 6

/** A range is drawn over rows: from empty air, or with Shift from anywhere; it meets edges, onsets, sections and the grid, unless
    with Alt. Let go with Ctrl it selects the clips that it touches. */
export function useRange(timeline: Timeline | null, lens: Lens | null) {
  const from = useRef<{ frame: number; row: string; y: number; x: number } | null>(null)
  const boxed = useRef(false) // clips were selected by it
  if (!timeline || !lens) return {}
  const frameAt = (e: PointerEvent, row: string) => {
    const raw = Math.max(0, lens.frame(within(e, e.currentTarget).x))
    return e.altKey ? Math.round(raw) : meet(timeline, row, raw, NEAR * lens.perPixel)
  }
  return {
    onPointerDown: (e: PointerEvent) => {
      if (e.button !== 0) return
      const row = e.currentTarget.closest('[data-row]')!.getAttribute('data-row')!
      from.current = { frame: frameAt(e, row), row, x: e.clientX, y: e.clientY }
      e.currentTarget.setPointerCapture(e.pointerId)
    },
    onPointerMove: (e: PointerEvent) => {
      const f = from.current
      if (!f || (Math.abs(e.clientX - f.x) < 4 && !view().piece)) return
      const [a, b] = [f.frame, frameAt(e, f.row)].sort((x, y) => x - y) as [number, number]
      if (b > a) setView({ piece: { from: a, to: b, rows: between(f.row, rowAt(e) ?? f.row) }, clips: [] })
    },
    onPointerUp: (e: PointerEvent) => {
      const f = from.current
      from.current = null
      if (!f) return
      if (Math.abs(e.clientX - f.x) < 4) return setView({ piece: null, clips: [] })
      if (e.ctrlKey || e.metaKey) {
        boxed.current = true
        return selectUnder()
      }
      setView({ channel: f.row, stage: '', together: [], dialog: null })
    },
    onPointerCancel: () => void (from.current = null),
    // what was drawn stays: a click on the row would put it away
    onClick: (e: { stopPropagation: () => void }) => {
      if (view().piece || boxed.current) e.stopPropagation()
      boxed.current = false
    },
  }
}

/** The row that the pointer is over. */
const rowAt = (e: PointerEvent) =>
  document
    .elementsFromPoint(e.clientX, e.clientY)
    .map((el) => el.closest('[data-row]')?.getAttribute('data-row'))
    .find(Boolean)

/** The rows from one to another, as they stand. */
function between(a: string, b: string): string[] {
  const ids = (theProject()?.channels ?? []).filter((c) => view().showHidden || !c.hidden).map((c) => c.id)
  const [i, j] = [ids.indexOf(a), ids.indexOf(b)].sort((x, y) => x - y) as [number, number]
  return ids.slice(i, j + 1)
}

/** The place that is shown for one that a hand gives: what Go cuts at is what is seen here. */
function meet(t: Timeline, row: string, at: number, near: number): number {
  const starts = Object.entries(t.clips)
  const frames = new Map(
    (theProject()?.channels ?? []).flatMap((c) => c.clips.map((x) => [x.id, x.frames] as const)),
  )
  const edges = [
    ...t.sections.map((s) => s.from),
    ...onsetsNear(row, at, near),
    ...starts.flatMap(([id, f]) => [f, f + (frames.get(id) ?? 0)]),
  ].filter((f) => Math.abs(f - at) <= near)
  if (edges.length) return edges.sort((a, b) => Math.abs(a - at) - Math.abs(b - at))[0]!
  const grid = view().grid
  const i = barAt(t, at)
  const bar = t.bars[i]!
  const next = t.bars[i + 1]
  if (!grid || !next) return Math.round(at)
  const steps = (bar.beats * 4 * 960) / bar.unit / grid
  const step = (next.frame - bar.frame) / steps
  return Math.round(bar.frame + Math.round((at - bar.frame) / step) * step)
}
