import { useRef } from 'react'
import { Hold, useHeard } from '../live/meters'

/** The peak at a point in dB below full scale, as on a chart: tenths small, no minus sign. */
export function Depth({ point, title }: { point: string; title?: string }) {
  const ref = useRef<HTMLSpanElement>(null)
  const hold = useRef(new Hold(350))
  const last = useRef(NaN)
  useHeard((h) => {
    const el = ref.current
    if (!el) return
    const p = h.peaks.get(point)
    const db = hold.current.feed(p ? Math.max(p[0], p[1]) : -120)
    if (db === last.current) return
    last.current = db
    const text = depthText(db)
    el.dataset.over = String(db > 0)
    el.firstChild!.textContent = text[0]!
    el.lastChild!.textContent = text[1]!
  }, 'figure')
  return (
    <span ref={ref} className="depth" title={title ?? 'Peak here, in dB below full scale'}>
      <span>–</span>
      <sub></sub>
    </span>
  )
}

export function depthText(db: number): [string, string] {
  if (db <= -99.95) return ['–', '']
  const tenths = Math.round(Math.abs(db) * 10)
  return [(db > 0 ? '+' : '') + Math.floor(tenths / 10), String(tenths % 10)]
}
