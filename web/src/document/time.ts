import type { Timeline } from '../api/types'

/** Frames to pixels and back, for one width of the board. */
export type Lens = { x: (frame: number) => number; frame: (x: number) => number; perPixel: number }

export function lens(t: Timeline, width: number, zoom: number, scroll: number): Lens {
  const perPixel = zoom || (t.end * 1.01) / Math.max(width, 100)
  return { x: (f) => (f - scroll) / perPixel, frame: (x) => x * perPixel + scroll, perPixel }
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
