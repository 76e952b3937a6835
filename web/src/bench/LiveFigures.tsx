import { useRef } from 'react'
import { useHeard } from '../session/meters'

/** What a stage reports of itself while it plays, in words and figures. */
export function LiveFigures({ stage, names }: { stage: string; names: string[] }) {
  const figures = useRef<(HTMLSpanElement | null)[]>([])
  useHeard((h) => {
    const r = h.reports.get(stage)
    names.forEach((_, i) => {
      const el = figures.current[i]
      const v = r?.[i]
      if (el) el.textContent = v === undefined || v <= -119 ? '–' : v.toFixed(2).replace('-', '−')
    })
  }, 'figure')
  return (
    <div className="soft flex h-[22px] items-center gap-3 text-small whitespace-nowrap">
      {names.map((n, i) => (
        <span key={n}>
          {n}{' '}
          <span
            ref={(el) => void (figures.current[i] = el)}
            className="figure"
            style={{ color: 'var(--ink)' }}
          >
            –
          </span>
        </span>
      ))}
    </div>
  )
}
