import { describe, expect, it } from 'vitest'
import { STRIP_HEIGHT } from '../lines/face'
import { heights } from './heights'

describe('how high a row is', () => {
  it('is as high as all, with what a chain needs of it', () => {
    expect(heights('mid', 48, undefined, 0)).toEqual({ air: 21, water: 27, lines: 0, all: 48 })
    expect(heights('mid', 120, undefined, 0).water).toBe(65)
  })
  it('keeps to a line, which is all chain, and at low tide all time', () => {
    expect(heights('mid', 48, 'line', 0)).toEqual({ air: 0, water: 30, lines: 0, all: 30 })
    expect(heights('low', 48, 'line', 0)).toMatchObject({ air: 30, water: 0 })
  })
  it('opens its air, but not at high tide, where there is none', () => {
    expect(heights('mid', 48, 'open', 0)).toMatchObject({ air: 89, water: 27, all: 116 })
    expect(heights('high', 48, 'open', 0)).toMatchObject({ air: 0, all: 48 })
  })
  it('has room for its lines, where there is time', () => {
    expect(heights('mid', 48, undefined, 2).all).toBe(48 + 2 * STRIP_HEIGHT)
    expect(heights('high', 48, undefined, 2).all).toBe(48)
  })
  it('adds up', () => {
    for (const tide of ['low', 'mid', 'high'] as const)
      for (const air of [undefined, 'line', 'open'] as const) {
        const h = heights(tide, 57, air, 1)
        expect(h.air + h.water + h.lines, `${tide} ${air}`).toBe(h.all)
      }
  })
})
