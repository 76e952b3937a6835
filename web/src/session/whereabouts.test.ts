import { afterEach, expect, it, vi } from 'vitest'
import type { Heard, Presence } from '../api/types'
import { setView } from './view'
import { peopleAfter, sayWhere, songAfter, strayed } from './whereabouts'

const at = (window: string, row = ''): Presence => ({
  window,
  person: { id: window, name: window },
  at: row,
  stage: '',
})

const heard = (h: Partial<Heard>): Heard => ({
  playing: true,
  song: 1000,
  from: 0,
  to: 0,
  solo: [],
  dry: '',
  share: '',
  mono: false,
  ...h,
})

afterEach(() => vi.useRealTimers())

it('knows who is here from a whole list and from what differs', () => {
  const all = peopleAfter([], { presence: [at('a'), at('b')] })
  expect(all).toHaveLength(2)
  const after = peopleAfter(all, { came: [at('b', 'row'), at('c')], left: ['a'] })
  expect(after).toEqual([at('b', 'row'), at('c')])
})

it('says where it is, at once and then not too often', () => {
  vi.useFakeTimers()
  setView({ channel: 'one', stage: '' })
  const sent: string[] = []
  const end = sayWhere((t) => sent.push(t))
  for (const channel of ['two', 'three', 'four']) setView({ channel, stage: 'eq' })
  expect(sent).toEqual(['{"at":"one","stage":""}'])
  vi.advanceTimersByTime(1000)
  expect(sent).toEqual(['{"at":"one","stage":""}', '{"at":"four","stage":"eq"}'])
  end()
  setView({ channel: 'five' })
  vi.advanceTimersByTime(1000)
  expect(sent).toHaveLength(2)
})

it('knows where a song is that goes on elsewhere', () => {
  expect(songAfter(heard({ playing: false }), 5000, 48000)).toBe(1000)
  expect(songAfter(heard({}), 500, 48000)).toBe(25000)
  expect(songAfter(heard({ from: 0, to: 48000 }), 2000, 48000)).toBe(1000)
  expect(songAfter(heard({ song: 50000, to: 48000 }), 1000, 48000)).toBe(98000)
})

it('says anew where its song is when that is no longer where others take it to be', () => {
  expect(strayed(heard({}), heard({ song: 25000 }), 500)).toBe(false)
  expect(strayed(heard({}), heard({ song: 45000 }), 500)).toBe(true)
  expect(strayed(undefined, heard({}), 0)).toBe(true)
  expect(strayed(undefined, undefined, 0)).toBe(false)
})
