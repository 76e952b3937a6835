import type { Timeline } from '../api/types'
import type { Lens } from '../document/time'

const says = {
  sum: 'Two clips overlap: both sound at once here, and are added to each other.',
  cover: 'Two clips overlap: the later one covers the other here.',
  fade: 'Two clips overlap: one fades into the other here.',
}

const looks = {
  sum: 'repeating-linear-gradient(135deg, var(--ink) 0 1.5px, transparent 1.5px 5px), var(--card)',
  cover: 'var(--ink)',
  fade:
    'linear-gradient(to top right, transparent 44%, var(--ink) 44% 56%, transparent 56%), ' +
    'linear-gradient(to bottom right, transparent 44%, var(--ink) 44% 56%, transparent 56%), var(--card)',
}

/** Where clips of a row overlap: it is seen what happens there. */
export function Overlaps({ row, timeline, lens }: { row: string; timeline: Timeline; lens: Lens }) {
  return timeline.overlaps
    .filter((o) => o.row === row)
    .map((o) => (
      <span
        key={`${o.clip} ${o.from}`}
        role="img"
        aria-label={says[o.rule]}
        title={`${says[o.rule]} The bench of the later clip sets it.`}
        className="pointer-events-none absolute top-[2px] border-x"
        style={{
          left: lens.x(o.from),
          width: Math.max(4, (o.to - o.from) / lens.perPixel),
          height: o.rule === 'cover' ? 3 : 9,
          borderColor: 'var(--ink)',
          background: looks[o.rule],
        }}
      />
    ))
}
