import { expect, test } from 'vitest'
import { tints } from '../theme/tints'
import { initials, tintOf } from './person'

test('a person has the first letters of two words, or the first two of one', () => {
  expect(initials('Ada')).toBe('Ad')
  expect(initials('  Odile van Rijn ')).toBe('Ov')
  expect(initials('É')).toBe('É')
  expect(initials('👩‍🚀 Nils')).toHaveLength('👩N'.length)
  expect(initials('')).toBe('?')
})

test('a person has one colour, and it is none of nothing', () => {
  const all = new Set(Array.from({ length: 200 }, (_, i) => tintOf(`person ${i}`)))
  expect(all).toEqual(new Set(tints.slice(1)))
  expect(tintOf('x')).toBe(tintOf('x'))
})
