import { expect, test } from 'vitest'
import { at, figure, place, read } from './format'

const hz = { taper: 'log', min: 20, max: 20000, digits: 0, unit: 'Hz' } as const
const db = { taper: 'level', min: -120, max: 12, digits: 1, unit: 'dB' } as const

test('values are read as people type them', () => {
  expect(read(hz, '2k')).toBe(2000)
  expect(read(db, '-6')).toBe(-6)
  expect(read(db, 'off')).toBe(-120)
  expect(read(db, '99')).toBe(12)
  expect(read(db, 'loud')).toBeNull()
})

test('values are written as people read them', () => {
  expect(figure(hz, 1500)).toBe('1.50 k')
  expect(figure(db, -6)).toBe('−6.0')
  expect(figure(db, -120)).toBe('−∞')
})

test('a place along a scale and its value agree', () => {
  for (const p of [hz, db])
    for (const x of [0, 0.05, 0.3, 0.7, 1]) expect(place(p, at(p, x))).toBeCloseTo(x, 9)
})
