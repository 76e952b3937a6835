import type { Timeline } from '../api/types'

/** Frames to pixels and back, for one width of the board. */
export type Lens = {
  x: (frame: number) => number
  frame: (x: number) => number
  perPixel: number
  scroll: number // the frame at its left edge
}

const at = (perPixel: number, scroll: number): Lens => ({
  x: (f) => (f - scroll) / perPixel,
  frame: (x) => x * perPixel + scroll,
  perPixel,
  scroll,
})

export function lens(t: Timeline, width: number, zoom: number, scroll: number): Lens {
  const perPixel = zoom || (t.end * 1.01) / Math.max(width, 100)
  return at(perPixel, scroll)
}

/** How far the board is scrolled before a steady lens moves on, in pixels. */
export const STEADY = 512

let last: Lens | null = null

/** A lens that moves on in great steps only, and is the same one in between: what is drawn through it stays. */
export function steady(l: Lens): Lens {
  const step = STEADY * l.perPixel
  const scroll = Math.floor(l.scroll / step) * step
  if (last?.perPixel !== l.perPixel || last.scroll !== scroll) last = at(l.perPixel, scroll)
  return last
}

/** The bar that a frame lies in. */
export function barAt(t: Timeline, frame: number): number {
  let lo = 0
  let hi = t.bars.length - 1
  while (lo < hi) {
    const m = (lo + hi + 1) >> 1
    if (t.bars[m]!.frame <= frame) lo = m
    else hi = m - 1
  }
  return lo
}

export function minutes(seconds: number): string {
  const m = Math.floor(seconds / 60)
  return `${m}:${(seconds - m * 60).toFixed(2).padStart(5, '0')}`
}
