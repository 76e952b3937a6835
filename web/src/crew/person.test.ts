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

test('a person has one colour, nobody else’s while there are any left', () => {
  const own = tints.slice(1)
  const first = own.map((_, i) => tintOf(`person ${i}`))
  expect(new Set(first)).toEqual(new Set(own))
  expect(own.map((_, i) => tintOf(`person ${i}`))).toEqual(first)
  expect(own).toContain(tintOf('one more'))
})
