import { useState } from 'react'
import type { Lens } from '../document/time'
import { setView, useView } from '../session/view'
import { scale } from '../theme/size'

/** Buoys at the places where a clip would be cut: dragged along; a double click takes one off. */
export function CutMarks({
  clip,
  left,
  lens,
  height,
}: {
  clip: string
  left: number
  lens: Lens
  height: number
}) {
  const marks = useView((v) => v.marks[clip])
  const [drag, setDrag] = useState<{ i: number; from: number; by: number } | null>(null)
  if (!marks?.length) return null
  const set = (next: number[]) => setView((v) => ({ marks: { ...v.marks, [clip]: next } }))
  return marks.map((at, i) => (
    <span
      key={i}
      role="img"
      aria-label="A place to cut at"
      className="absolute top-0 z-[4] w-3 -translate-x-1/2 cursor-ew-resize touch-none"
      style={{ left: lens.x(at) - left + (drag?.i === i ? drag.by : 0), height }}
      title="It would be cut here. Drag it; a double click takes it off."
      onPointerDown={(e) => {
        e.stopPropagation()
        e.currentTarget.setPointerCapture(e.pointerId)
        setDrag({ i, from: e.clientX, by: 0 })
      }}
      onPointerMove={(e) => drag && setDrag({ ...drag, by: (e.clientX - drag.from) / scale() })}
      onPointerUp={() => {
        if (drag?.by) set(marks.map((m, k) => (k === i ? m + drag.by * lens.perPixel : m)))
        setDrag(null)
      }}
      onDoubleClick={(e) => {
        e.stopPropagation()
        set(marks.filter((_, k) => k !== i))
      }}
    >
      <svg width={12} height={height} className="block" aria-hidden>
        <path d={`M8.5 6L5.5 ${height}`} stroke="var(--ink)" strokeWidth={1.3} />
        <circle cx={8.5} cy={4} r={3} fill="var(--card)" stroke="var(--ink)" strokeWidth={1.3} />
      </svg>
    </span>
  ))
}
