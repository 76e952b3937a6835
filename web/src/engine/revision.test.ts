import { expect, test } from 'vitest'
import { document } from '../testing/server'
import { revisionOf } from './revision'

test('a revision names the rows and lines that are other objects, and all else', () => {
  const line = (owner: string) => ({ owner, name: 'fader', points: [] })
  const old = { ...document(), lines: [line('a'), line('b')] }
  const first = { ...old.channels[0]!, mute: true }
  const now = {
    ...old,
    name: 'Other',
    channels: [first, ...old.channels.slice(1)],
    lines: [old.lines[0]!, line('c'), line('d')],
  }
  const r = revisionOf(old, now)
  expect(r.rest).toEqual({ ...document(), name: 'Other', channels: [], lines: [] })
  expect(r.rows).toEqual({ count: now.channels.length, changed: [{ at: 0, is: now.channels[0] }] })
  expect(r.rows.changed[0]!.is.mute).toBe(true)
  expect(r.lines).toEqual({
    count: 3,
    changed: [
      { at: 1, is: line('c') },
      { at: 2, is: line('d') },
    ],
  })
  expect(revisionOf(now, now)).toMatchObject({ rows: { changed: [] }, lines: { changed: [] } })
})
