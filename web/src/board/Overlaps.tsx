import type { Timeline } from '../api/types'
import type { Lens } from '../document/time'

/** Where clips of a row sound at once, and are added to each other: hatched, so that it is seen. */
export function Overlaps({ row, timeline, lens }: { row: string; timeline: Timeline; lens: Lens }) {
  return timeline.overlaps
    .filter((o) => o.row === row)
    .map((o) => (
      <span
        key={o.from}
        role="img"
        aria-label="Two clips sound at once here"
        title="Two clips overlap: both sound at once here, and are added to each other. Move one, or remove it."
        className="absolute top-[2px] h-[9px] border-x"
        style={{
          left: lens.x(o.from),
          width: Math.max(4, (o.to - o.from) / lens.perPixel),
          borderColor: 'var(--ink)',
          background:
            'repeating-linear-gradient(135deg, var(--ink) 0 1.5px, transparent 1.5px 5px), var(--card)',
        }}
      />
    ))
}
