import { expect, test } from 'vitest'
import type { Timeline } from '../api/types'
import { lens, perPixelOf } from './time'

const song = { end: 4_800_000, shown: 4_800_000 } as Timeline

test('frames become pixels and pixels frames', () => {
  const at = lens(song, 1000, 100, 123_400)
  for (const frame of [0, 60_000, 300_000]) expect(at.frame(at.x(frame))).toBeCloseTo(frame, 6)
  expect(at.x(123_400)).toBe(0)
  expect(at.x(123_500)).toBe(1)
})

test('unless it is zoomed the song fits, with a little more', () => {
  expect(song.end / perPixelOf(song, 1000, 0)).toBeCloseTo(990, 0)
  expect(perPixelOf(song, 1000, 70)).toBe(70)
})
