import 'fake-indexeddb/auto'
import { beforeEach, expect, test, vi } from 'vitest'
import { Over, type Part, sendPart, Tapes } from './tapes'
import { TapeStore } from './tapeStore'

const part = (row: string, at: number, frames: number): Part => ({
  recording: 'r',
  project: 'p',
  row,
  at,
  runs: [{ input: 0, song: 100, frames: at + frames }],
  data: new Float32Array(2 * frames).fill(at + 1),
})

/** A server that has so much of each row on disk. */
class Disk {
  rows = new Map<string, number>()
  sent: Part[] = []
  trouble: Error | null = null
  put = (p: Part) => {
    if (this.trouble) return Promise.reject(this.trouble)
    this.sent.push(p)
    const now = this.rows.get(p.row) ?? 0
    if (p.at <= now) this.rows.set(p.row, Math.max(now, p.at + p.data.length / 2))
    return Promise.resolve(this.rows.get(p.row) ?? 0)
  }
}

let disk: Disk
let store: TapeStore
let told: [number, string][]
const tapes = () =>
  new Tapes(
    disk.put,
    store,
    (seconds, trouble) => told.push([seconds, trouble]),
    () => 100,
  )

beforeEach(async () => {
  disk = new Disk()
  store = new TapeStore()
  told = []
  for (const p of await store.all()) await store.drop(p)
})

test('what has arrived is kept in the browser until the server has it', async () => {
  disk.trouble = new Error('no connection')
  vi.useFakeTimers({ toFake: ['setTimeout'] })
  const t = tapes()
  t.put(part('a', 0, 100))
  t.put(part('a', 100, 50))
  t.put(part('b', 0, 30))
  await vi.waitFor(async () => expect(await store.all()).toHaveLength(3))
  expect(t.unsafe).toBe(180)
  expect(told.at(-1)).toEqual([1.8, 'no connection'])
  disk.trouble = null
  const done = t.flush()
  await vi.runAllTimersAsync()
  await done
  vi.useRealTimers()
  expect(disk.rows).toEqual(
    new Map([
      ['a', 150],
      ['b', 30],
    ]),
  )
  await vi.waitFor(async () => expect(await store.all()).toHaveLength(0))
  expect(t.unsafe).toBe(0)
  expect(told.at(-1)).toEqual([0, ''])
})

test('what waits of a row goes as one, with the runs of the last', async () => {
  disk.trouble = new Error('busy')
  vi.useFakeTimers({ toFake: ['setTimeout'] })
  const t = tapes()
  for (const at of [0, 10, 20]) t.put(part('a', at, 10))
  disk.trouble = null
  const done = t.flush()
  await vi.runAllTimersAsync()
  await done
  vi.useRealTimers()
  const last = disk.sent.at(-1)!
  expect(last.data).toHaveLength(60)
  expect([...new Set(last.data)]).toEqual([1, 11, 21])
  expect(last.runs).toEqual([{ input: 0, song: 100, frames: 30 }])
})

test('a recording that is over stays in the browser, and the next one is sent', async () => {
  disk.trouble = new Over('this recording is over')
  const t = tapes()
  t.put(part('a', 0, 10))
  t.put(part('b', 0, 10))
  expect(await t.end('r')).toBe(false)
  expect(await store.all()).toHaveLength(2)
  expect(told.at(-1), 'and why it waits').toEqual([0.2, 'this recording is over'])
  disk.trouble = null
  t.put({ ...part('a', 0, 20), recording: 'next' })
  expect(await t.end('next')).toBe(true)
  expect(disk.sent.map((p) => p.recording)).toEqual(['next'])
})

test('what hangs in a connection that is gone is given up when there is one again', async () => {
  let hangs = 0
  const t = new Tapes(
    (p, giveUp) =>
      hangs++ > 0
        ? disk.put(p)
        : new Promise((_, fail) => giveUp.addEventListener('abort', () => fail(new Error('given up')))),
    store,
    (seconds, trouble) => told.push([seconds, trouble]),
    () => 100,
  )
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  t.put(part('a', 0, 100))
  dispatchEvent(new Event('online'))
  await vi.advanceTimersByTimeAsync(2000)
  expect(told).toEqual([
    [1, 'given up'],
    [0, ''],
  ])
  expect(vi.getTimerCount(), 'nobody waits any more').toBe(0)
  vi.useRealTimers()
})

test('what nobody answers is given up without a word of the network, and then waited for longer', async () => {
  const began: number[] = []
  let now = 0
  const t = new Tapes(
    (p, giveUp) => {
      began.push(now)
      if (began.length > 3) return disk.put(p)
      return new Promise((_, fail) => giveUp.addEventListener('abort', () => fail(new Error('given up'))))
    },
    store,
    (seconds, trouble) => told.push([seconds, trouble]),
    () => 100,
  )
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  t.put(part('a', 0, 100))
  for (; now < 90; now++) await vi.advanceTimersByTimeAsync(1000)
  vi.useRealTimers()
  const waits = began.slice(1).map((at, i) => at - began[i]!)
  expect(waits, 'a second between them').toEqual([9, 17, 33])
  expect(told.map(([, trouble]) => trouble)).toEqual([
    ...Array<string>(3).fill('the server does not answer'),
    '',
  ])
  expect(disk.rows.get('a')).toBe(100)
})

test('who gives up a part is told that the server cannot be reached', async () => {
  const hangs = vi.fn(
    (r: Request) =>
      new Promise<Response>((_, fail) =>
        r.signal.addEventListener('abort', () => fail(new Error('given up'))),
      ),
  )
  vi.stubGlobal('fetch', hangs)
  const lost = new AbortController()
  const sent = sendPart(part('voice', 0, 4), lost.signal)
  expect(hangs).toHaveBeenCalledOnce()
  lost.abort()
  await expect(sent).rejects.toThrow('the server cannot be reached')
  vi.unstubAllGlobals()
})
