import { expect, test } from 'vitest'
import { document } from '../testing/server'
import { rowIn } from './rows'

test('a row is found by its id, in the revision that is asked about', () => {
  const old = document()
  const id = old.channels[0]!.id
  expect(rowIn(old, id)).toBe(old.channels[0])
  const now = { ...old, channels: [{ ...old.channels[0]!, name: 'Other' }] }
  expect(rowIn(now, id)?.name).toBe('Other')
  expect(rowIn(old, id)).toBe(old.channels[0])
  expect(rowIn(now, 'nowhere')).toBeUndefined()
  expect(rowIn(null, id)).toBeUndefined()
  expect(rowIn(now, undefined)).toBeUndefined()
})
