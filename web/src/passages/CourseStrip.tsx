import { type PointerEvent, useRef, useState } from 'react'
import type { CourseView, PassageView } from '../api/types'
import * as passages from './actions'
import { within } from '../theme/size'

const W = 112
const H = 42
const PAD = 4
const PARTS = 10000 // project.CourseParts
const shapes = ['ramp', 'smooth', 'curve', 'step'] as const

type Part = { part: number; value: number; shape: (typeof shapes)[number]; bend: number }

/** How a course goes over its length: points are dragged, put by a double click and taken off by Delete. */
export function CourseStrip({ v, course, index }: { v: PassageView; course: CourseView; index: number }) {
  const [drag, setDrag] = useState<{ i: number; part: number; value: number } | null>(null)
  const box = useRef<SVGSVGElement>(null)
  const x = (part: number) => PAD + (part / PARTS) * (W - 2 * PAD)
  const y = (value: number) => H - PAD - value * (H - 2 * PAD)
  const where = (e: { clientX: number; clientY: number }) => {
    const at = within(e, box.current!)
    const clamp = (t: number) => Math.max(0, Math.min(1, t))
    return {
      part: Math.round(clamp((at.x - PAD) / (W - 2 * PAD)) * PARTS),
      value: Math.round(clamp((H - PAD - at.y) / (H - 2 * PAD)) * 1000) / 1000,
    }
  }
  const points = course.points.map((p): Part => ({
    part: p.tick,
    value: p.value,
    shape: p.shape,
    bend: p.bend ?? 0,
  }))
  const set = (next: typeof points) => void passages.setCourse(v, index, next)
  const put = (i: number, what: Partial<(typeof points)[number]>) =>
    set(points.map((p, k) => (k === i ? { ...p, ...what } : p)))
  const shown = drag ? points.map((p, k) => (k === drag.i ? { ...p, ...drag } : p)) : points
  const path = drag
    ? shown.map((p, i) => `${i ? 'L' : 'M'}${x(p.part)} ${y(p.value)}`).join('')
    : course.path
        .map(
          (t, i) =>
            `${i ? 'L' : 'M'}${x((i / (course.path.length - 1)) * PARTS).toFixed(1)} ${y(t).toFixed(1)}`,
        )
        .join('')
  return (
    <svg
      ref={box}
      width={W}
      height={H}
      className="touch-none"
      role="group"
      aria-label={`How ${course.name} goes`}
      style={{ background: 'var(--shoal-1)', border: '1px solid var(--hair)' }}
      onDoubleClick={(e) => {
        if (e.target instanceof SVGCircleElement) return
        const at = where(e)
        set([...points, { ...at, shape: 'ramp' as const, bend: 0 }].sort((a, b) => a.part - b.part))
      }}
    >
      <path d={`${path}L${x(PARTS)} ${H}L${x(0)} ${H}Z`} fill="var(--shoal-3)" opacity={0.5} />
      <path d={path} fill="none" stroke="var(--deep)" strokeWidth={1.6} />
      {shown.map((p, i) => (
        <circle
          key={i}
          cx={x(p.part)}
          cy={y(p.value)}
          r={4}
          tabIndex={0}
          role="slider"
          aria-label={`Point ${i + 1} of ${course.name}`}
          aria-valuenow={Math.round(p.value * 100)}
          aria-valuetext={`${Math.round(p.value * 100)} % at ${Math.round(p.part / 100)} % of the length, ${p.shape}`}
          fill="var(--card)"
          stroke="var(--deep)"
          strokeWidth={1.4}
          className="cursor-grab"
          onPointerDown={(e: PointerEvent<SVGCircleElement>) => {
            if (e.altKey) return
            e.currentTarget.setPointerCapture(e.pointerId)
            setDrag({ i, part: p.part, value: p.value })
          }}
          onPointerMove={(e) => {
            if (!drag || drag.i !== i) return
            const at = where(e)
            const low = points[i - 1]?.part ?? 0
            const high = points[i + 1]?.part ?? PARTS
            setDrag({ i, part: Math.max(low, Math.min(high, at.part)), value: at.value })
          }}
          onPointerUp={() => {
            if (drag && (drag.part !== points[i]!.part || drag.value !== points[i]!.value))
              put(i, { part: drag.part, value: drag.value })
            setDrag(null)
          }}
          onDoubleClick={(e) => {
            if (!e.altKey) return
            const next = shapes[(shapes.indexOf(p.shape) + 1) % shapes.length]!
            put(i, { shape: next, bend: next === 'curve' ? 0.4 : 0 })
          }}
          onKeyDown={(e) => {
            const by = e.shiftKey ? 0.01 : 0.05
            const up = { ArrowUp: by, ArrowDown: -by }[e.key]
            const on = { ArrowRight: by, ArrowLeft: -by }[e.key]
            if (up) put(i, { value: Math.max(0, Math.min(1, p.value + up)) })
            else if (on) put(i, { part: Math.round(Math.max(0, Math.min(PARTS, p.part + on * PARTS))) })
            else if (e.key === 'Delete' && points.length > 1) set(points.filter((_, k) => k !== i))
            else return
            e.preventDefault()
            e.stopPropagation()
          }}
        >
          <title>{`${Math.round(p.value * 100)} % at ${Math.round(p.part / 100)} %, ${p.shape}. Drag it; Alt and a double click change how it goes on.`}</title>
        </circle>
      ))}
    </svg>
  )
}
