import type { PassageSpan } from '../api/types'
import type { Lens } from '../document/time'
import { useView } from '../session/view'

/** Where passages work on a row: hatched over its clips. */
export function PassageShade(p: { row: string; passages: PassageSpan[]; lens: Lens }) {
  const selected = useView((v) => v.stage)
  return p.passages
    .filter((x) => x.rows.includes(p.row))
    .map((x) => (
      <span
        key={x.id}
        className="pointer-events-none absolute inset-y-0"
        style={{
          left: p.lens.x(x.from),
          width: Math.max(2, (x.to - x.from) / p.lens.perPixel),
          opacity: x.off ? 0.2 : x.id === selected ? 0.8 : 0.5,
          background:
            'repeating-linear-gradient(115deg, transparent 0 5px, var(--deep) 5px 6px, transparent 6px 9px)',
          borderRight: '1px solid var(--deep)',
        }}
      />
    ))
}
