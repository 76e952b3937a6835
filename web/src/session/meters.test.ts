import { expect, test } from 'vitest'
import type { Heard } from '../engine/engine'
import { gather, Hold, interval, none } from './meters'

const heard = (peak: number, truePeak = peak) =>
  ({ peaks: new Map([['after a', [peak, peak - 1]]]), truePeak }) as unknown as Heard

test('a figure that is painted seldom does not miss a short peak', () => {
  const h = none()
  for (const db of [-60, -3, -70]) gather(h, heard(db))
  expect(h.peaks.get('after a')).toEqual([-3, -4])
  expect(h.truePeak).toBe(-3)
  // and what was gathered is its own: the engine uses its map again
  const shared = heard(-20)
  const g = none()
  gather(g, shared)
  shared.peaks.get('after a')![0] = 0
  expect(g.peaks.get('after a')![0]).toBe(-20)
})

test('a level is held so that it can be read, and gives way to a higher one at once', () => {
  const h = new Hold(500)
  expect(h.feed(-20, 1000)).toBe(-20)
  expect(h.feed(-60, 1100)).toBe(-20)
  expect(h.feed(-6, 1200)).toBe(-6)
  expect(h.feed(-60, 1600)).toBe(-6)
  expect(h.feed(-60, 1800)).toBe(-6) // still within the time that began with it
  expect(h.feed(-60, 2400)).toBe(-60)
})

test('pictures leave the machine to the sound', () => {
  expect(interval(0.3, 5)).toBe(31)
  expect(interval(0.3, 40)).toBe(80)
  expect(interval(0.6, 40)).toBe(160)
  expect(interval(0.9, 10)).toBe(180)
  expect(interval(0.9, 1000)).toBe(400) // but there are some
})
