import { expect, test } from 'vitest'
import { at, figure, place, read, said } from './format'

const hz = { taper: 'log', min: 20, max: 20000, digits: 0, unit: 'Hz' } as const
const db = { taper: 'level', min: -120, max: 12, digits: 1, unit: 'dB' } as const

test('values are read as people type them', () => {
  expect(read(hz, '2k')).toBe(2000)
  expect(read(db, '-6')).toBe(-6)
  expect(read(db, 'off')).toBe(-120)
  expect(read(db, '99')).toBe(99) // out of range: the scale says so and brings it in
  expect(read({ taper: 'linear', min: 0, max: 500, unit: 'ms' }, '1.5 s')).toBe(1500)
  expect(read(db, 'loud')).toBeNull()
})

test('note lengths are typed short or long', () => {
  const notes = {
    taper: 'choice',
    min: 0,
    max: 3,
    unit: '',
    choices: ['1/8', '1/8 triplet', '1/8 dotted', '1/4'],
  } as const
  const typed = (t: string) => read({ ...notes, choices: [...notes.choices] }, t)
  expect(typed('1/8d')).toBe(2)
  expect(typed('1/8 t')).toBe(1)
  expect(typed('1/8')).toBe(0)
  expect(typed('1/4')).toBe(3)
  expect(typed('7')).toBeNull()
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

test('a value is said with its unit, thousands of hertz as kHz, and can be read again', () => {
  expect(said(hz, 440)).toBe('440 Hz')
  expect(said(hz, 5620)).toBe('5.62 kHz')
  expect(said(hz, 20000)).toBe('20.0 kHz')
  expect(said(db, -3)).toBe('−3.0 dB')
  expect(said({ ...db, unit: '' }, 0)).toBe('0.0')
  for (const v of [20, 999, 1000, 12300]) expect(read(hz, said(hz, v))).toBe(v)
})
