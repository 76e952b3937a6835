import { applyPatch, type Operation } from 'fast-json-patch'
import { expect, test } from 'vitest'
import type { Project } from '../api/types'
import { patched, sameButLines, serialOf } from './patch'

const document = () => ({
  name: 'Slack Water',
  channels: [
    {
      id: 'a',
      sends: [{ level: -6 }, { level: -9 }],
      chain: { nodes: [{ stage: { params: { 'a/b': 1 } } }] },
    },
    { id: 'b', sends: [], chain: { nodes: [] } },
  ],
  lines: [{ points: [1, 2] }, { points: [3] }],
})

const patches: Operation[][] = [
  [{ op: 'replace', path: '/channels/0/sends/1/level', value: -3 }],
  [{ op: 'add', path: '/channels/1/sends/-', value: { level: 0 } }],
  [{ op: 'remove', path: '/channels/0/sends/0' }],
  [{ op: 'replace', path: '/lines/1', value: { points: [] } }],
  [{ op: 'add', path: '/channels/0/chain/nodes/0/stage/params/a~1c', value: 2 }],
  [
    { op: 'add', path: '/channels/1', value: { id: 'c', sends: [{ level: 1 }] } },
    { op: 'replace', path: '/channels/1/sends/0/level', value: 2 },
    { op: 'remove', path: '/channels/0' },
  ],
]

test.each(patches.map((p) => [p]))('the same comes out as with a copy of all, %j', (patch) => {
  const old = document()
  const next = patched(old, patch)
  expect(next).toEqual(applyPatch(document(), patch).newDocument)
  expect(old).toEqual(document())
})

test('what is not touched is shared', () => {
  const old = document()
  const next = patched(old, [{ op: 'replace', path: '/lines/1', value: { points: [9] } }])
  expect(next.channels).toBe(old.channels)
  expect(next.lines[0]).toBe(old.lines[0])
  expect(next.lines[1]).not.toBe(old.lines[1])
})

test('a change of one line leaves all that is drawn of the rest as it is', () => {
  const old = document() as unknown as Project
  const after = (...patch: Operation[]) => patched(old, patch)
  const line = after({ op: 'replace', path: '/lines/1/points', value: [4] })
  expect(sameButLines(old, line)).toBe(true)
  expect(serialOf(line.lines[0])).toBe(serialOf(old.lines[0]))
  expect(serialOf(line.lines[1])).not.toBe(serialOf(old.lines[1]))
  expect(serialOf(undefined)).toBe(0)
  expect(sameButLines(old, after({ op: 'add', path: '/lines/-', value: { points: [] } }))).toBe(false)
  expect(sameButLines(old, after({ op: 'replace', path: '/name', value: 'Ebb' }))).toBe(false)
  expect(sameButLines(old, after({ op: 'add', path: '/tempo', value: [] }))).toBe(false)
  expect(sameButLines(old, after({ op: 'remove', path: '/name' }))).toBe(false)
})

test('a row that moves, comes or goes leaves the others the same objects', () => {
  const old = document()
  const [a, b] = old.channels
  const fresh = { ...a!, id: 'fresh' }
  const next = patched(old, [
    { op: 'move', from: '/channels/1', path: '/channels/0' },
    { op: 'add', path: '/channels/2', value: fresh },
  ])
  expect(next.channels.map((c) => c.id)).toEqual([b!.id, a!.id, 'fresh'])
  expect(next.channels[0]).toBe(b)
  expect(next.channels[1]).toBe(a)
  expect(old.channels).toEqual([a, b])
  expect(patched(next, [{ op: 'remove', path: '/channels/0' }]).channels[0]).toBe(a)
})
