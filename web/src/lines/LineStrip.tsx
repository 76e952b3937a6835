import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import type { Channel, LineView, SeenPoint } from '../api/types'
import { Playhead } from '../board/Playhead'
import type { Lens } from '../board/time'
import { at as valueAt, figure, place as placeOf, round, step } from '../controls/format'
import * as lines from '../live/lines'
import { move, useSession } from '../live/session'
import { setView, useView, view } from '../live/view'
import { LineHead } from './LineHead'
import { LineValueAt } from './LineValueAt'
import { useLine } from './useLine'

export const STRIP_HEIGHT = 48

const PAD = 6

type Drag =
  | { kind: 'points'; x: number; y: number; dx: number; dy: number; ticks: number[] }
  | { kind: 'range'; from: number; to: number }
  | { kind: 'flat'; x: number; y: number; place: number }
  | { kind: 'bend'; y: number; tick: number; bend: number; up: boolean }

/** A line in the air of its row: drawn in its own taper, with points that are taken hold of. */
export function LineStrip(p: { channel: Channel; owner: string; name: string; lens: Lens; width: number }) {
  const v = useLine(p.owner, p.name, p.lens, p.width)
  const key = `${p.owner} ${p.name}`
  const stretch = useView((s) =>
    s.stretch?.owner === p.owner && s.stretch.name === p.name ? s.stretch : null,
  )
  const taken = useSession((s) => s.takingDown.includes(key))
  const [drag, setDrag] = useState<Drag | null>(null)
  const box = useRef<SVGSVGElement>(null)
  if (!v) return <div style={{ height: STRIP_HEIGHT }} />

  const h = STRIP_HEIGHT
  const y = (place: number) => h - PAD - place * (h - 2 * PAD)
  const placeAt = (py: number) => Math.min(1, Math.max(0, (h - PAD - py) / (h - 2 * PAD)))
  const value = (place: number) => round(v.param, valueAt(v.param, place))
  const where = (e: PointerEvent | React.MouseEvent) => {
    const r = box.current!.getBoundingClientRect()
    return { x: e.clientX - r.left, y: e.clientY - r.top }
  }
  const chosen = (pt: SeenPoint) => stretch?.ticks.includes(pt.tick) ?? false
  const shift = drag?.kind === 'points' ? drag : null
  const seenAt = (pt: SeenPoint) => {
    const moved = shift?.ticks.includes(pt.tick)
    return {
      x: p.lens.x(pt.frame) + (moved ? shift!.dx : 0),
      y: y(Math.min(1, Math.max(0, pt.place - (moved ? shift!.dy / (h - 2 * PAD) : 0)))),
    }
  }
  const ticksIn = (from: number, to: number) =>
    v.points.filter((pt) => pt.frame >= from && pt.frame <= to).map((pt) => pt.tick)
  const select = (from: number, to: number, ticks = ticksIn(from, to)) =>
    setView({ stretch: { owner: p.owner, name: p.name, from, to, ticks } })

  const down = (e: PointerEvent) => {
    if (e.button !== 0) return
    e.stopPropagation()
    box.current!.focus()
    e.currentTarget.setPointerCapture(e.pointerId)
    const w = where(e)
    const near = v.points.find((pt) => Math.hypot(p.lens.x(pt.frame) - w.x, y(pt.place) - w.y) < 8)
    if (near) {
      let ticks = chosen(near) ? stretch!.ticks : [near.tick]
      if (e.shiftKey) ticks = [...new Set([...(stretch?.ticks ?? []), near.tick])]
      const frames = v.points.filter((pt) => ticks.includes(pt.tick)).map((pt) => pt.frame)
      select(Math.min(...frames), Math.max(...frames), ticks)
      setDrag({ kind: 'points', x: w.x, y: w.y, dx: 0, dy: 0, ticks })
      return
    }
    if (v.count === 0) return setDrag({ kind: 'flat', x: w.x, y: w.y, place: placeOf(v.param, v.base) })
    const before = v.points.findLast((pt) => p.lens.x(pt.frame) < w.x)
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
    if (!drag) return
    const w = where(e)
    if (drag.kind === 'points') setDrag({ ...drag, dx: e.ctrlKey ? 0 : w.x - drag.x, dy: w.y - drag.y })
    if (drag.kind === 'range') setDrag({ ...drag, to: w.x })
    if (drag.kind === 'flat' && Math.abs(w.x - drag.x) > Math.abs(w.y - drag.y) + 4) {
      setDrag({ kind: 'range', from: drag.x, to: w.x })
    } else if (drag.kind === 'flat' && Math.abs(w.y - drag.y) > 2) {
      const place = Math.min(1, Math.max(0, placeOf(v.param, v.base) - (w.y - drag.y) / (h - 2 * PAD)))
      setDrag({ ...drag, place })
      move(p.owner, p.name, value(place), lines.labelOf(v))
    }
    if (drag.kind === 'bend') {
      const by = ((w.y - drag.y) / (h - 2 * PAD)) * 2 * (drag.up ? 1 : -1)
      setDrag({ ...drag, y: w.y, bend: Math.min(1, Math.max(-1, drag.bend + by)) })
    }
  }
  const up = (e: PointerEvent) => {
    const d = drag
    setDrag(null)
    if (!d) return
    if (d.kind === 'points' && (Math.abs(d.dx) > 2 || Math.abs(d.dy) > 2)) {
      const by = Math.abs(d.dx) > 2 ? d.dx * p.lens.perPixel : 0
      void lines.movePoints(v, d.ticks, by, -d.dy / (h - 2 * PAD), e.altKey ? 0 : undefined)
    }
    if (d.kind === 'range') {
      const [a, b] = [d.from, d.to].sort((m, n) => m - n) as [number, number]
      if (b - a < 3) return setView({ stretch: null })
      select(p.lens.frame(a), p.lens.frame(b))
    }
    if (d.kind === 'bend') void lines.setPoints(v, [d.tick], { bend: d.bend })
  }
  const key_ = (e: KeyboardEvent) => {
    // as it is now: a key may follow a drag before that is drawn
    const now = view().stretch
    const ticks = now?.owner === p.owner && now.name === p.name ? now.ticks : []
    const first = v.points.find((pt) => pt.tick === ticks[0])
    const done = () => {
      e.preventDefault()
      e.stopPropagation()
    }
    if ((e.ctrlKey || e.metaKey) && e.key === 'c') {
      done()
      lines.copyPoints(v, ticks)
    } else if ((e.ctrlKey || e.metaKey) && e.key === 'v') {
      done()
      void lines.pastePoints(v)
    } else if (e.key === 'Escape' && stretch) {
      done()
      setView({ stretch: null })
    } else if (!ticks.length || e.ctrlKey || e.metaKey) return
    else if (e.key === 'Delete' || e.key === 'Backspace') {
      done()
      void lines.cutPoints(v, ticks).then(() => setView({ stretch: null }))
    } else if ((e.key === 'ArrowUp' || e.key === 'ArrowDown') && first) {
      done()
      const next = step(v.param, first.value, (e.key === 'ArrowUp' ? 1 : -1) * (e.shiftKey ? 0.1 : 1))
      void lines.movePoints(v, ticks, 0, placeOf(v.param, next) - first.place)
    }
  }
  const flat = drag?.kind === 'flat' ? drag.place : null
  const path = v.path
    .map(
      (x, i) =>
        `${i ? 'L' : 'M'}${((i / (v.path.length - 1)) * p.width).toFixed(1)} ${y(flat ?? x).toFixed(1)}`,
    )
    .join('')
  const mark =
    drag?.kind === 'range'
      ? ([Math.min(drag.from, drag.to), Math.max(drag.from, drag.to)] as const)
      : stretch && stretch.to > stretch.from
        ? ([p.lens.x(stretch.from), p.lens.x(stretch.to)] as const)
        : null
  return (
    <div
      className="relative"
      style={{ height: h, borderTop: '1px dotted var(--hair)' }}
      onClick={(e) => e.stopPropagation()}
      onDoubleClick={(e) => e.stopPropagation()}
    >
      <svg
        ref={box}
        width={p.width}
        height={h}
        tabIndex={0}
        role="group"
        aria-label={`Line of ${lines.labelOf(v)}, ${v.count} points`}
        className="absolute inset-0 cursor-crosshair touch-none"
        onPointerDown={down}
        onPointerMove={drags}
        onPointerUp={up}
        onDoubleClick={(e) => {
          const w = where(e)
          void lines.putPoint(v, p.lens.frame(w.x), value(placeAt(w.y)), e.altKey ? 0 : undefined)
        }}
        onKeyDown={key_}
      >
        <rect x={0} y={0} width={p.width} height={h} fill="transparent" />
        {mark && (
          <rect x={mark[0]} y={0} width={mark[1] - mark[0]} height={h} fill="var(--shoal-3)" opacity={0.4} />
        )}
        <path d={`${path}L${p.width} ${h}L0 ${h}Z`} fill="var(--shoal-2)" opacity={0.35} />
        <path d={path} fill="none" stroke={taken ? 'var(--live)' : 'var(--deep)'} strokeWidth={1.6} />
        {v.points.map((pt, i) => {
          const s = seenAt(pt)
          return (
            <circle
              key={i}
              cx={s.x}
              cy={s.y}
              r={chosen(pt) ? 4.5 : 3.5}
              fill={chosen(pt) ? 'var(--ink)' : 'var(--card)'}
              stroke="var(--deep)"
              strokeWidth={1.4}
            >
              <title>{`${figure(v.param, pt.value)} ${v.param.unit}, ${pt.shape}`}</title>
            </circle>
          )
        })}
        {shift && v.points.some((pt) => shift.ticks.includes(pt.tick)) && (
          <Tip
            v={v}
            pt={v.points.find((pt) => shift.ticks.includes(pt.tick))!}
            seen={seenAt(v.points.find((pt) => shift.ticks.includes(pt.tick))!)}
            value={value(placeAt(seenAt(v.points.find((pt) => shift.ticks.includes(pt.tick))!).y))}
            width={p.width}
          />
        )}
      </svg>
      <Playhead lens={p.lens} />
      <LineHead v={v} row={p.channel.id} stretch={stretch} taken={taken}>
        <LineValueAt v={v} />
      </LineHead>
    </div>
  )
}

function Tip(p: {
  v: LineView
  pt: SeenPoint
  seen: { x: number; y: number }
  value: number
  width: number
}) {
  const end = p.seen.x > p.width - 90
  return (
    <text
      className="figure"
      x={p.seen.x + (end ? -8 : 8)}
      y={Math.max(11, p.seen.y - 5)}
      textAnchor={end ? 'end' : 'start'}
      fontSize={11}
      fill="var(--ink)"
    >
      {figure(p.v.param, p.value)} {p.v.param.unit}
    </text>
  )
}
