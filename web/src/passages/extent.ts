import type { PassageSpan } from '../api/types'
import type { Lens } from '../document/time'

/* Where passages and their names stand along the ruler, so that none lies on another. */

/** Where a passage and its name stand along the ruler, in pixels. */
export function extent(x: PassageSpan, lens: Lens, room: number, from = x.from, to = x.to) {
  const left = lens.x(from)
  const width = Math.max(10, (to - from) / lens.perPixel)
  const text = x.name.length * 6.2
  const inside = width > 14 + text
  const after = left + width + 3
  const name = inside ? left : after + text < room ? after : left - text - 3
  return { left, width, inside, name, begin: Math.min(left, name), end: Math.max(left + width, name + text) }
}

/** How far a name can reach before the next passage begins. */
export const freeTo = (from: number, x: PassageSpan, others: PassageSpan[], lens: Lens) =>
  Math.max(
    0,
    Math.min(
      ...others.map((o) => (o.id !== x.id && lens.x(o.from) >= from ? lens.x(o.from) - from - 4 : 1e4)),
    ),
  )

/** The first place from here on that no passage takes. */
export function freeFrom(x: number, width: number, taken: { begin: number; end: number }[]) {
  for (const t of [...taken].sort((a, b) => a.begin - b.begin))
    if (t.begin < x + width + 4 && x < t.end + 4) x = t.end + 6
  return x
}
