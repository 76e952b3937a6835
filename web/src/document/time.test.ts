import { expect, test } from 'vitest'
import type { Timeline } from '../api/types'
import { lens, STEADY, steady } from './time'

const song = { end: 4_800_000 } as Timeline
const at = (scroll: number, zoom = 100) => lens(song, 1000, zoom, scroll)

test('a steady lens stays the same one until the song is scrolled by a step, or zoomed', () => {
  const first = steady(at(0))
  expect(steady(at((STEADY - 1) * 100))).toBe(first)
  const next = steady(at(STEADY * 100))
  expect(next).not.toBe(first)
  expect(next.scroll).toBe(STEADY * 100)
  expect(steady(at(STEADY * 100, 50)).perPixel).toBe(50)
  const seen = at(STEADY * 100 + 1234)
  const shift = (seen.scroll - steady(seen).scroll) / seen.perPixel
  for (const frame of [0, 60_000, 300_000]) {
    expect(steady(seen).x(frame) - shift).toBeCloseTo(seen.x(frame), 6)
    expect(seen.frame(seen.x(frame))).toBeCloseTo(frame, 6)
  }
})
