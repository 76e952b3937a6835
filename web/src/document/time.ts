import type { Timeline } from '../api/types'

/** Frames to pixels and back, for one width of the board. */
export type Lens = {
  x: (frame: number) => number
  frame: (x: number) => number
  perPixel: number
  scroll: number // the frame at its left edge
}

/** The lens at so many frames to a pixel, from a frame on. */
export const lensAt = (perPixel: number, scroll: number): Lens => ({
  x: (f) => (f - scroll) / perPixel,
  frame: (x) => x * perPixel + scroll,
  perPixel,
  scroll,
})

/** How many frames a pixel is: as it is zoomed, or so that the song fits. */
export const perPixelOf = (t: Timeline, width: number, zoom: number) =>
  zoom || (t.shown * 1.01) / Math.max(width, 100)

export const lens = (t: Timeline, width: number, zoom: number, scroll: number): Lens =>
  lensAt(perPixelOf(t, width, zoom), scroll)

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
