import { type KeyboardEvent, type PointerEvent, useRef, type WheelEvent } from 'react'
import type { Param, Picture } from '../api/types'
import { round, step } from '../controls/format'
import { useSession } from '../session/store'
import type { Frame } from './frame'
import { moveTogether } from './several'
import { scale } from '../theme/size'

type Handle = NonNullable<Picture['handles']>[number]

/** What a picture is of: where its parameters lie, and where they stand. */
export type Pictured = { id: string; name: string; params: Param[]; value: (p: Param) => number }

/** A point of a picture that is dragged or moved by keys: across, up and down, and by the wheel. */
export function HandlePoint({
  handle,
  frame,
  of,
  onGrab,
  onLetGo,
}: {
  handle: Handle
  frame: Frame
  of: Pictured
  /** It has the focus, or is held by a pointer. */
  onGrab?: (by: PointerEvent | null) => void
  onLetGo?: () => void
}) {
  const held = useRef<{ x: number; y: number } | null>(null)
  const moving = useSession((s) => s.moving)
  const param = (n?: string): Param | undefined => of.params.find((p) => p.name === n)
  const px = param(handle.paramX)
  const py = param(handle.paramY)
  const pz = param(handle.paramZ)
  const now = (p: Param) => moving[`${of.id} ${p.name}`] ?? of.value(p)
  const set = (p: Param, v: number, rest = false) =>
    moveTogether(
      of.id,
      p.name,
      round({ ...p, digits: p.digits + 1 }, inside(p, v)),
      `${p.label} of ${of.name}`,
      rest,
    )
  /** As far as there is room: crossovers keep their distance, and Go says what that is. */
  const inside = (p: Param, v: number) =>
    p === px && handle.maxX ? Math.min(Math.max(v, handle.minX ?? v), handle.maxX) : v
  const wake = () => {
    const on = of.params.find((p) => p.group && p.group === px?.group && p.taper === 'switch')
    if (on && handle.quiet) set(on, 1, true)
  }
  const drag = (e: PointerEvent) => {
    const h = held.current
    if (!h) return
    const fine = (e.shiftKey ? 0.1 : 1) / scale()
    h.x += e.movementX * fine
    h.y += e.movementY * fine
    if (px) set(px, frame.xAt(h.x) / (handle.scaleX || 1))
    // a handle on a curve moves its parameter by as much as the hand moves on the axis
    if (py) set(py, now(py) - (e.movementY * fine * (frame.yMax - frame.yMin)) / frame.h)
  }
  const key = (e: KeyboardEvent) => {
    const by = e.shiftKey ? 0.1 : 1
    const moves: Record<string, [Param | undefined, number]> = {
      ArrowRight: [px, by],
      ArrowLeft: [px, -by],
      ArrowUp: [py, by],
      ArrowDown: [py, -by],
      PageUp: [pz, by],
      PageDown: [pz, -by],
    }
    const m = moves[e.key]
    if (!m?.[0]) return
    e.preventDefault()
    e.stopPropagation()
    wake()
    set(m[0], step(m[0], now(m[0]), m[1]))
  }
  const wheel = (e: WheelEvent) => pz && set(pz, step(pz, now(pz), e.deltaY < 0 ? 1 : -1))
  const x = Math.min(Math.max(frame.x(Math.max(handle.x, frame.xMin)), 8), frame.w - 8)
  const y = Math.min(Math.max(frame.y(handle.y), 6), frame.h - 6)
  const shown = [px, py, pz]
    .flatMap((p) => (p ? [`${p.label} ${Math.round(now(p) * 100) / 100} ${p.unit}`] : []))
    .join(', ')
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${handle.label} in the picture`}
      aria-valuenow={px ? now(px) : py ? now(py) : 0}
      aria-valuetext={shown}
      className="cursor-move touch-none"
      opacity={handle.quiet ? 0.45 : 1}
      onFocus={() => onGrab?.(null)}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId)
        held.current = { x, y }
        onGrab?.(e)
        wake()
      }}
      onPointerMove={drag}
      onPointerUp={() => {
        held.current = null
        onLetGo?.()
      }}
      onKeyDown={key}
      onWheel={wheel}
    >
      <title>{`${handle.label}: ${shown}${pz ? '. Wheel or Page keys: ' + pz.label : ''}`}</title>
      <circle cx={x} cy={y} r={12} fill="transparent" />
      <circle cx={x} cy={y} r={8} fill="var(--card)" stroke="var(--deep)" strokeWidth={1.6} />
      <text x={x} y={y + 3.5} textAnchor="middle" fontSize={12} fontWeight={700} fill="var(--ink)">
        {handle.label.slice(0, 1)}
      </text>
    </g>
  )
}
