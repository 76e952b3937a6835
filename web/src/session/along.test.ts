import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { Heard, Presence } from '../api/types'
import { hearAlong } from './along'
import { empty, session, setSession } from './store'
import { locate } from './transport'
import { setView, view } from './view'

const asked: string[] = []
vi.mock('./sound', () => ({
  theEngine: () => ({
    heard: () => ({ song: 0 }),
    loop: (from: number, to: number) => asked.push(`loop ${from} ${to}`),
    hear: (h: { solo: string[] }) => asked.push(`hear ${h.solo.join()}`),
    listen: (p: { node?: string }) => asked.push(`listen ${p.node ?? 'all'}`),
    trial: (row: string, trial: string, match: Record<string, number>) =>
      asked.push(`trial ${row} ${trial} ${JSON.stringify(match)}`),
    locate: (frame: number) => asked.push(`locate ${frame}`),
    stop: () => asked.push('stop'),
    play: () => Promise.resolve(asked.push('play')),
  }),
}))

const ada = (h: Partial<Heard>, window = 'w'): Presence => ({
  window,
  person: { id: 'ada', name: 'Ada' },
  at: '',
  stage: '',
  heard: { playing: false, song: 0, from: 0, to: 0, solo: [], dry: '', share: '', mono: false, ...h },
})

beforeEach(() => {
  asked.length = 0
  setSession({ ...empty, project: { sampleRate: 48000, name: 'Rope' } as never }, true)
  setView({
    solo: [],
    loop: null,
    looping: false,
    listening: null,
    playing: false,
    dry: '',
    share: '',
    mono: false,
  })
})
afterEach(() => setSession({ along: null }))

it('hears what somebody hears: loop, solo, point, and from where they are', () => {
  hearAlong(
    ada({ playing: true, song: 96000, from: 48000, to: 480000, solo: ['choir'], listening: { node: 'eq' } }),
  )
  expect(asked).toEqual([
    'loop 48000 480000',
    'hear choir',
    'listen eq',
    expect.stringMatching(/^locate 96\d\d\d$/),
    'play',
  ])
  expect(view().solo).toEqual(['choir'])
  expect(session().along?.name).toBe('Ada')
})

it('goes on with them, also in another window of theirs, until they are gone', () => {
  hearAlong(ada({}))
  asked.length = 0
  setSession({ people: [ada({ solo: ['horn'] })] })
  expect(asked).toEqual(['hear horn'])
  setSession({ people: [ada({ song: 4800 }, 'other')] })
  expect(session().along?.window).toBe('other')
  expect(asked).toContain('locate 4800')
  setSession({ people: [] })
  expect(session().along).toBeNull()
  expect(session().notices.at(-1)?.text).toContain('Ada has gone')
})

it('is left by any gesture of one’s own', () => {
  hearAlong(ada({}))
  setView({ solo: ['drum'] })
  expect(session().along).toBeNull()
  hearAlong(ada({}))
  locate(100)
  expect(session().along).toBeNull()
})

it('hears the alternatives of chains that are heard there, as loud as there, and leaves them again', () => {
  setView({ trials: {} })
  hearAlong(ada({ trials: [{ row: 'choir', trial: 'bare', match: -2.5 }] }))
  expect(asked).toContain('trial choir bare {"bare":-2.5}')
  expect(view().trials).toEqual({ choir: 'bare' })
  expect(session().along?.name).toBe('Ada')
  asked.length = 0
  setSession({ people: [ada({ trials: [{ row: 'choir', trial: 'bare', match: -2.5 }] })] })
  expect(asked.filter((x) => x.startsWith('trial'))).toEqual([]) // as before
  setSession({ people: [ada({})] })
  expect(asked).toContain('trial choir  {}')
  setView({ trials: { choir: 'own' } }) // a gesture of one's own
  expect(session().along).toBeNull()
})
