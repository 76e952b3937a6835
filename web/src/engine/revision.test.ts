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
  expect(r.lines).toEqual({
    count: 3,
    changed: [
      { at: 1, is: line('c') },
      { at: 2, is: line('d') },
    ],
  })
  expect(revisionOf(now, now)).toMatchObject({ rows: { changed: [] }, lines: { changed: [] } })
})

test('what is only at another place is named by the place that it had', () => {
  const old = document()
  const [a, b] = old.channels
  const fresh = { ...a!, id: 'fresh' }
  expect(revisionOf(old, { ...old, channels: [fresh, ...old.channels] }).rows).toEqual({
    count: old.channels.length + 1,
    changed: [{ at: 0, is: fresh }, ...old.channels.map((_, was) => ({ at: was + 1, was }))],
  })
  expect(revisionOf(old, { ...old, channels: [b!, a!, ...old.channels.slice(2)] }).rows.changed).toEqual([
    { at: 0, was: 1 },
    { at: 1, was: 0 },
  ])
})
