import { type KeyboardEvent, type PointerEvent, useState } from 'react'

const W = 240
const H = 64

/** A movement that is drawn: over one cycle from left to right, by the pointer or by arrow keys. */
export function DrawShape({ drawn, onDraw }: { drawn: number[]; onDraw: (drawn: number[]) => void }) {
  const [now, setNow] = useState<number[] | null>(null)
  const [last, setLast] = useState<{ i: number; v: number } | null>(null)
  const [at, setAt] = useState(0)
  const shown = now ?? drawn
  const steps = drawn.length
  const x = (i: number) => (i / shown.length) * W
  const y = (v: number) => H / 2 - v * (H / 2 - 4)
  const draw = (e: PointerEvent<SVGSVGElement>, from = last, into = now) => {
    const box = e.currentTarget.getBoundingClientRect()
    const i = Math.min(steps - 1, Math.max(0, Math.floor(((e.clientX - box.left) / box.width) * steps)))
    const v = Math.min(1, Math.max(-1, 1 - ((e.clientY - box.top - 4) / (box.height - 8)) * 2))
    const next = [...(into ?? drawn)]
    // a quick hand leaves places out: they are joined
    const a = from ?? { i, v }
    const n = Math.max(1, Math.abs(i - a.i))
    for (let k = 0; k <= n; k++)
      next[Math.round(a.i + ((i - a.i) * k) / n)] = Number((a.v + ((v - a.v) * k) / n).toFixed(3))
    setNow(next)
    setLast({ i, v })
  }
  const key = (e: KeyboardEvent) => {
    const along = e.key === 'ArrowLeft' ? -1 : e.key === 'ArrowRight' ? 1 : 0
    const up = e.key === 'ArrowUp' ? 1 : e.key === 'ArrowDown' ? -1 : 0
    if (!along && !up) return
    e.preventDefault()
    e.stopPropagation()
    if (along) return setAt((at + along + steps) % steps)
    const next = [...drawn]
    next[at] = Math.min(1, Math.max(-1, next[at]! + up * (e.shiftKey ? 0.02 : 0.1)))
    onDraw(next)
  }
  const path = [...shown, shown[0]!].map((v, i) => `${i ? 'L' : 'M'}${x(i).toFixed(1)} ${y(v).toFixed(1)}`)
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="col-span-2 w-full cursor-crosshair touch-none rounded-[2px] border"
      style={{ height: H, borderColor: 'var(--hair)', background: 'var(--shoal-1)' }}
      preserveAspectRatio="none"
      tabIndex={0}
      role="application"
      aria-label="Draw the movement: left and right choose a place, up and down move it"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId)
        draw(e, null, drawn)
      }}
      onPointerMove={(e) => now && draw(e)}
      onPointerUp={() => {
        if (now) onDraw(now)
        setNow(null)
        setLast(null)
      }}
      onKeyDown={key}
    >
      <path d={`M0 ${H / 2}H${W}`} stroke="var(--hair)" vectorEffect="non-scaling-stroke" />
      <path
        d={`M${(at / steps) * W} 0V${H}`}
        stroke="var(--deep)"
        strokeDasharray="2 3"
        opacity={0.5}
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={path.join('')}
        fill="none"
        stroke="var(--deep)"
        strokeWidth={1.8}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  )
}
