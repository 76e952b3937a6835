import { useRef } from 'react'
import { useHeard } from '../live/meters'

const share = (db: number) => Math.max(0, Math.min(1, (db + 60) / 66))

/** Level as a horizontal tide scale, left above right, with a mark at the held peak. */
export function TideMeter({ point, tall }: { point: string; tall?: boolean }) {
  const bars = useRef<(HTMLSpanElement | null)[]>([])
  const marks = useRef<(HTMLSpanElement | null)[]>([])
  const held = useRef([0, 0])
  const since = useRef([0, 0])
  const shown = useRef([0, 0])
  useHeard((h) => {
    const p = h.peaks.get(point)
    const now = performance.now()
    for (const side of [0, 1] as const) {
      const level = share(p ? p[side] : -120)
      // falls back calmly
      const s = Math.max(level, shown.current[side]! - 0.012)
      shown.current[side] = s
      if (level >= held.current[side]! || now - since.current[side]! > 1500) {
        held.current[side] = level
        since.current[side] = now
      }
      bars.current[side]!.style.transform = `scaleX(${s})`
      const m = marks.current[side]!
      m.style.left = `${held.current[side]! * 100}%`
      m.style.opacity = held.current[side]! > 0.01 ? '1' : '0'
      m.style.background = p && p[side] > 0 ? 'var(--loss)' : 'var(--ink)'
    }
  })
  const h = tall ? 6 : 4
  return (
    <span className="flex w-full flex-col" style={{ gap: 2 }} aria-hidden>
      {[0, 1].map((side) => (
        <span
          key={side}
          className="relative block w-full"
          style={{ height: h, background: 'var(--paper-2)' }}
        >
          <span
            ref={(el) => void (bars.current[side] = el)}
            className="absolute inset-0 origin-left"
            style={{ background: 'var(--deep)', transform: 'scaleX(0)' }}
          />
          <span
            ref={(el) => void (marks.current[side] = el)}
            className="absolute w-[2px] opacity-0"
            style={{ top: -1, height: h + 2 }}
          />
        </span>
      ))}
    </span>
  )
}
