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
      const s = Math.max(level, shown.current[side]! - 0.05)
      if (s !== shown.current[side]) bars.current[side]!.style.transform = `scaleX(${s.toFixed(3)})`
      shown.current[side] = s
      const m = marks.current[side]!
      if (level >= held.current[side]! || now - since.current[side]! > 1500) {
        since.current[side] = now
        if (level === held.current[side]) continue
        held.current[side] = level
        // a full-width carrier moved by a transform: no layout
        m.style.transform = `translateX(${(level * 100).toFixed(1)}%)`
        m.style.opacity = level > 0.01 ? '1' : '0'
        m.style.color = p && p[side] > 0 ? 'var(--loss)' : 'var(--ink)'
      }
    }
  }, 'meter')
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
            className="absolute inset-x-0 opacity-0"
            style={{ top: -1, height: h + 2, borderLeft: '2px solid currentColor' }}
          />
        </span>
      ))}
    </span>
  )
}
