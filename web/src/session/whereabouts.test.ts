import { afterEach, expect, it, vi } from 'vitest'
import type { Presence } from '../api/types'
import { setView } from './view'
import { peopleAfter, sayWhere } from './whereabouts'

const at = (window: string, row = ''): Presence => ({ window, person: { id: window, name: window }, at: row })

afterEach(() => vi.useRealTimers())

it('knows who is here from a whole list and from what differs', () => {
  const all = peopleAfter([], { presence: [at('a'), at('b')] })
  expect(all).toHaveLength(2)
  const after = peopleAfter(all, { came: [at('b', 'row'), at('c')], left: ['a'] })
  expect(after).toEqual([at('b', 'row'), at('c')])
})

it('says where it is, at once and then not too often', () => {
  vi.useFakeTimers()
  setView({ channel: 'one' })
  const sent: string[] = []
  const end = sayWhere((t) => sent.push(t))
  for (const channel of ['two', 'three', 'four']) setView({ channel })
  expect(sent).toEqual(['{"at":"one"}'])
  vi.advanceTimersByTime(1000)
  expect(sent).toEqual(['{"at":"one"}', '{"at":"four"}'])
  end()
  setView({ channel: 'five' })
  vi.advanceTimersByTime(1000)
  expect(sent).toHaveLength(2)
})
