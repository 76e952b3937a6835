import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useSession } from './store'
import { work } from './works'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())
const works = () => useSession.getState().works

test('what takes long is in sight until it is done; what does not, is not', async () => {
  let done: (v: string) => void = () => undefined
  const r = work('Listening…', () => new Promise<string>((resolve) => (done = resolve)))
  expect(works()).toEqual([])
  vi.advanceTimersByTime(500)
  expect(works().map((w) => w.text)).toEqual(['Listening…'])
  done('heard')
  expect(await r).toBe('heard')
  expect(works()).toEqual([])
  expect(await work('Quick', () => Promise.resolve(1))).toBe(1)
  vi.advanceTimersByTime(500)
  expect(works()).toEqual([])
})

test('it can be cancelled by a person, and by who asked for it', async () => {
  const waiting = (outer?: AbortSignal) =>
    work(
      'Listening…',
      (w) =>
        new Promise((_, no) =>
          w.signal!.addEventListener('abort', () => no(new Error(`no ${w.work ? 'more' : ''}`))),
        ),
      outer,
    )
  const one = waiting()
  vi.advanceTimersByTime(500)
  works()[0]!.cancel()
  await expect(one).rejects.toThrow('no more')
  const outer = new AbortController()
  const other = waiting(outer.signal)
  outer.abort()
  await expect(other).rejects.toThrow('no more')
  expect(works()).toEqual([])
})
