import { beforeEach, expect, test, vi } from 'vitest'
import type { Project } from '../api/types'
import { empty, session, setSession } from './store'
import { mark, markRefused, touched } from './theirs'

const project = {
  id: 'p',
  name: 'Low Tide',
  channels: [
    {
      id: 'a',
      fader: 0,
      sends: [{ id: 's', level: -6 }],
      chain: { nodes: [{ stage: { id: 'eq', params: { gain3: 2 }, mix: 100 } }] },
    },
  ],
} as unknown as Project

beforeEach(() => {
  vi.useFakeTimers()
  setSession({ ...empty })
})

test('what a patch moves is known by its owner and its name', () => {
  const paths = [
    '/channels/0/fader',
    '/channels/0/sends/0/level',
    '/channels/0/chain/nodes/0/stage/params/gain3',
  ]
  expect(
    touched(
      project,
      paths.map((path) => ({ op: 'replace' as const, path, value: 1 })),
    ),
  ).toEqual(['a fader', 's level', 'eq gain3'])
  const other = [
    { op: 'replace' as const, path: '/name', value: 'x' },
    { op: 'add' as const, path: '/channels/0/chain/nodes/1', value: {} },
    { op: 'replace' as const, path: '/channels/9/fader', value: 1 },
  ]
  expect(touched(project, other)).toEqual([])
})

test('a mark stands for a moment, and again from its last', () => {
  mark('Bo', ['a fader'])
  vi.advanceTimersByTime(3000)
  mark('Cy', ['a fader', 's level'])
  vi.advanceTimersByTime(3000)
  expect(session().theirs).toEqual({ 'a fader': 'Cy', 's level': 'Cy' })
  vi.advanceTimersByTime(1001)
  expect(session().theirs).toEqual({})
  markRefused('eq gain3')
  expect(session().refusals).toEqual(['eq gain3'])
  vi.advanceTimersByTime(4000)
  expect(session().refusals).toEqual([])
})
