import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import type { Param } from '../api/types'
import { at, place, read } from './format'

/* Scales answer within a frame and so know tapers themselves. What they know is held to a table that Go makes of
   every parameter there is. */

type Travel = {
  param: Param
  values: Record<string, number>
  places: number[]
  reads: Record<string, number>
}
const table = JSON.parse(readFileSync('../internal/effect/testdata/travel.json', 'utf8')) as Travel[]
const near = (a: number, b: number) => Math.abs(a - b) <= 1e-9 * (1 + Math.abs(b))

test('the table holds parameters of every taper', () => {
  const tapers = new Set(table.map((t) => t.param.taper))
  expect([...tapers].sort()).toEqual(['choice', 'level', 'linear', 'log', 'switch'])
  expect(table.length).toBeGreaterThan(100)
})

test.each(table)(
  '$param.name $param.min to $param.max $param.unit travels as in Go',
  ({ param, values, places }) => {
    const stops = Object.keys(values).sort((a, b) => Number(a) - Number(b))
    stops.forEach((stop, i) => {
      const v = values[stop]!
      expect(
        near(at(param, Number(stop)), v),
        `the value at ${stop}: ${at(param, Number(stop))}, not ${v}`,
      ).toBe(true)
      expect(near(place(param, v), places[i]!), `the place of ${v}`).toBe(true)
    })
  },
)

test.each(table)('$param.name $param.unit is read as in Go', ({ param, reads }) => {
  for (const [text, v] of Object.entries(reads)) expect(read(param, text), text).toBeCloseTo(v, 9)
})
