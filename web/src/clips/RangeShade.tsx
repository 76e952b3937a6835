import type { Lens } from '../document/time'
import { useView } from '../session/view'

/** The range that is drawn over rows, on one of them. */
export function RangeShade({ row, lens }: { row: string; lens: Lens }) {
  const piece = useView((v) => (v.piece?.rows.includes(row) ? v.piece : null))
  if (!piece) return null
  return (
    <span
      role="img"
      aria-label="Range"
      className="pointer-events-none absolute inset-y-0 z-[3] border-x-2"
      style={{
        left: lens.x(piece.from),
        width: Math.max(2, (piece.to - piece.from) / lens.perPixel),
        borderColor: 'var(--ink)',
        background: 'color-mix(in oklab, var(--deep) 22%, transparent)',
      }}
    />
  )
}
