import { expect, test } from 'vitest'
import { document } from '../testing/server'
import { patched } from './patch'
import { revisionOf } from './revision'

test('a revision names the rows and lines that are other objects, and all else', () => {
  const line = (owner: string) => ({ owner, name: 'fader', points: [] })
  const old = { ...document(), lines: [line('a'), line('b')] }
  const now = patched(old, [
    { op: 'replace', path: '/name', value: 'Other' },
    { op: 'replace', path: '/channels/0/mute', value: true },
    { op: 'replace', path: '/lines/1', value: line('c') },
    { op: 'add', path: '/lines/-', value: line('d') },
  ])
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
