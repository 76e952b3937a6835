import type { LineView } from '../api/types'
import type { Lens } from '../document/time'
import { STRIP_HEIGHT } from './face'

/** A veil over all that is not the piece in whose time the line is seen. */
export function Outside(p: { v: LineView; lens: Lens; width: number }) {
  const from = Math.max(0, p.lens.x(p.v.from ?? 0))
  const to = Math.min(p.width, p.lens.x(p.v.to ?? 0))
  const veil = { y: 0, height: STRIP_HEIGHT, fill: 'var(--paper)', opacity: 0.85 }
  return (
    <g data-testid="outside">
      {from > 0 && <rect x={0} width={Math.min(from, p.width)} {...veil} />}
      {to < p.width && <rect x={Math.max(0, to)} width={p.width - Math.max(0, to)} {...veil} />}
      <path d={`M${from} 0V${STRIP_HEIGHT}M${to} 0V${STRIP_HEIGHT}`} stroke="var(--hair)" />
    </g>
  )
}
