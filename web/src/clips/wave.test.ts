import { expect, test } from 'vitest'
import { clip } from '../testing/screen'
import { contours, UNITS } from './wave'

const FRAMES = 512 // of one value of an overview

/** The heights above the middle that a path goes through, by pixel. */
function above(path: string, middle: number) {
  const at = new Map<number, number>()
  for (const [, x, y] of path.matchAll(/[ML](\d+) (\d+)/g)) {
    if (Number(y) <= middle) at.set(Number(x), middle - Number(y))
  }
  return at
}

const seen = (more: object) => ({
  clip: { ...clip('a'), offset: 0, gain: 0 },
  first: 0,
  perPixel: FRAMES,
  width: 4,
  height: 44,
  shift: 0,
  ...more,
})

// Peak and mean by turns: 0, half, half, full.
const data = new Uint8Array([0, 0, 128, 64, 128, 64, 255, 128])

test('a contour is as high as its values, as loud as the gain, and the same below as above', () => {
  const middle = 22 * UNITS
  const [outer, inner, mean] = contours(data, seen({}))
  const room = 20 * UNITS
  const high = (c: typeof outer) => above(c!.path, middle)
  expect(high(inner).get(1)).toBeCloseTo((128 / 255) * 0.85 * room, -0.5)
  expect(high(inner).get(3)).toBeCloseTo(0.85 * room, -0.5)
  expect(high(outer).get(3)).toBe(room) // no higher than its room
  expect(high(mean).get(3)).toBeCloseTo((128 / 255) * 0.95 * room, -0.5)
  const ys = [...inner!.path.matchAll(/[ML]\d+ (\d+)/g)].map((m) => Number(m[1]) - middle)
  expect([...ys].sort((a, b) => a - b)).toEqual(ys.map((y) => (y ? -y : 0)).sort((a, b) => a - b))
  const quiet = contours(data, seen({ clip: { ...clip('a'), offset: 0, gain: -12 } }))
  expect(high(quiet[1]).get(3)).toBeCloseTo(0.85 * room * 10 ** (-12 / 40), -0.5)
})

test('what it was made from stands behind it, and silence is one line', () => {
  const list = contours(new Uint8Array(8), seen({ source: data }))
  expect(list[0]!.colour).toBe('var(--hair)')
  expect(above(list[0]!.path, 22 * UNITS).get(3)).toBe(20 * UNITS)
  expect(list[1]!.path.match(/L/g)!.length).toBeLessThan(5)
})
