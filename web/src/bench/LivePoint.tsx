import { useRef } from 'react'
import type { Picture } from '../api/types'
import { useHeard } from '../session/meters'
import type { Frame } from './frame'

/** Where the signal stands on the curve at this moment. */
export function LivePoint({
  stage,
  live,
  frame,
}: {
  stage: string
  live: NonNullable<Picture['live']>
  frame: Frame
}) {
  const dot = useRef<SVGCircleElement>(null)
  useHeard((h) => {
    const r = h.reports.get(stage)
    const x = r?.[live.x] ?? -120
    const y = r?.[live.y] ?? -120
    dot.current!.style.opacity = x > frame.xMin ? '1' : '0'
    dot.current!.setAttribute('cx', frame.x(Math.max(x, frame.xMin)).toFixed(1))
    dot.current!.setAttribute('cy', frame.y(Math.min(Math.max(y, frame.yMin), frame.yMax)).toFixed(1))
  })
  return <circle ref={dot} r={5} fill="var(--live)" stroke="var(--card)" strokeWidth={1.5} opacity={0} />
}

const SECONDS = 4
const DEEP = 18 // dB

/** Reduction over the last seconds, hanging down from the top. */
export function ReductionHistory({ stage, index }: { stage: string; index: number }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const figure = useRef<HTMLSpanElement>(null)
  const past = useRef<{ at: number; db: number }[]>([])
  const last = useRef(-1)
  useHeard((h) => {
    const db = h.reports.get(stage)?.[index] ?? 0
    if (h.song === last.current) return
    last.current = h.song
    const now = performance.now()
    past.current.push({ at: now, db })
    while (past.current[0] && now - past.current[0].at > SECONDS * 1000) past.current.shift()
    const g = canvas.current!.getContext('2d')!
    const { width, height } = canvas.current!
    g.clearRect(0, 0, width, height)
    g.fillStyle = getComputedStyle(canvas.current!).color
    for (const p of past.current) {
      const x = width - ((now - p.at) / 1000 / SECONDS) * width
      g.fillRect(x, 0, 2, Math.min(1, p.db / DEEP) * height)
    }
    figure.current!.textContent = db < 0.05 ? '0.0' : `−${db.toFixed(1)}`
  })
  return (
    <>
      <canvas
        ref={canvas}
        width={74}
        height={20}
        style={{ width: 74, height: 20, color: 'var(--deep)' }}
        aria-hidden
      />
      <span ref={figure} className="figure w-[34px] text-right text-small">
        0.0
      </span>
    </>
  )
}
