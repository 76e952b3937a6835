import { useRef } from 'react'
import { useHeard } from '../session/meters'

const share = (db: number) => Math.max(0, Math.min(1, (db + 60) / 66))

/** Level as a horizontal tide scale, left above right, with a mark at the held peak. Bar and mark are
    backgrounds of one element: to move them costs a little paint, not a new arrangement of layers. */
export function TideMeter({ point, tall }: { point: string; tall?: boolean }) {
  const bars = useRef<(HTMLSpanElement | null)[]>([])
  const held = useRef([0, 0])
  const since = useRef([0, 0])
  const shown = useRef([-1, -1])
  useHeard((h) => {
    const p = h.peaks.get(point)
    const now = performance.now()
    for (const side of [0, 1] as const) {
      const level = share(p ? p[side] : -120)
      const bar = bars.current[side]!.style
      // falls back calmly
      const s = Math.max(level, shown.current[side]! - 0.05, 0)
      if (s !== shown.current[side]) bar.backgroundSize = `2px 100%, ${(s * 100).toFixed(1)}% 100%`
      shown.current[side] = s
      if (level >= held.current[side]! || now - since.current[side]! > 1500) {
        since.current[side] = now
        if (level === held.current[side]) continue
        held.current[side] = level
        bar.backgroundPosition = level > 0.01 ? `${(level * 100).toFixed(1)}% 0, 0 0` : '-4px 0, 0 0'
        bar.color = p && p[side] > 0 ? 'var(--loss)' : 'var(--ink)'
      }
    }
  }, 'meter')
  return (
    <span className="flex w-full flex-col" style={{ gap: 2 }} aria-hidden>
      {[0, 1].map((side) => (
        <span
          key={side}
          ref={(el) => void (bars.current[side] = el)}
          className="block w-full bg-no-repeat"
          style={{
            height: tall ? 6 : 5,
            backgroundColor: 'var(--paper-2)',
            backgroundImage:
              'linear-gradient(currentColor, currentColor), linear-gradient(var(--deep), var(--deep))',
            backgroundPosition: '-4px 0, 0 0',
            backgroundSize: '2px 100%, 0 100%',
          }}
        />
      ))}
    </span>
  )
}
