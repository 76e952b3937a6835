import 'fake-indexeddb/auto'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { TapeStore } from '../engine/tapeStore'
import type { Part } from '../engine/tapes'
import { session } from '../session/store'
import { FakeServer, json } from '../testing/server'
import { recover, runsFrom } from './recover'

test('runs of an input that begins later are those that are left', () => {
  const runs = [
    { input: 0, song: 100, frames: 50 },
    { input: 60, song: 150, frames: 40 },
  ]
  expect(runsFrom(runs, 0)).toEqual(runs)
  expect(runsFrom(runs, 20)).toEqual([
    { input: 0, song: 120, frames: 30 },
    { input: 40, song: 150, frames: 40 },
  ])
  expect(runsFrom(runs, 70)).toEqual([{ input: 0, song: 160, frames: 30 }])
})

let server: FakeServer
let taken: Set<string>
const store = new TapeStore()

beforeEach(async () => {
  server = new FakeServer()
  taken = new Set()
  const request = (name: string, _: unknown, run: (lock: object | null) => unknown) =>
    run(taken.has(name) ? null : {})
  vi.stubGlobal('navigator', { locks: { request } })
  for (const p of await store.all()) await store.drop(p)
  await store.keep(part(48000))
  await store.keep(part(96000))
})

afterEach(() => {
  vi.unstubAllGlobals()
})

const part = (at: number): Part => ({
  recording: 'r',
  project: 'p',
  row: 'a',
  at,
  runs: [{ input: 0, song: 7, frames: at + 4 }],
  data: new Float32Array(8),
})

const asked = () => server.asked.map((x) => `${x.method} ${x.path}`)

test('what is left in the browser is sent, and what was recorded ends', async () => {
  server.answers['PUT /api/recordings/r/rows/a'] = json({ frames: 96004 })
  server.answers['POST /api/recordings/r/end'] = json({ ok: true })
  await recover()
  expect(asked()).toEqual([
    'PUT /api/recordings/r/rows/a',
    'PUT /api/recordings/r/rows/a',
    'POST /api/recordings/r/end',
  ])
  expect(await store.all()).toEqual([])
  expect(session().notices.at(-1)!.text).toContain('has been brought in')
})

test('what another window looks after is left alone', async () => {
  taken.add('shoal recording r')
  await recover()
  expect(asked()).toEqual([])
  expect(await store.all()).toHaveLength(2)
})

test('what comes too late becomes a recording of its own', async () => {
  server.answers['PUT /api/recordings/r/rows/a'] = json({}, 410)
  server.answers['POST /api/projects/p/recordings'] = json({ id: 'new' })
  server.answers['PUT /api/recordings/new/rows/a'] = json({ frames: 48004 })
  server.answers['POST /api/recordings/new/end'] = json({ ok: true })
  await recover()
  expect(asked().slice(1)).toEqual([
    'POST /api/projects/p/recordings',
    'PUT /api/recordings/new/rows/a',
    'PUT /api/recordings/new/rows/a',
    'POST /api/recordings/new/end',
  ])
  expect(await store.all()).toEqual([])
})

test('while the server cannot be reached it stays, and is said', async () => {
  server.answers['PUT /api/recordings/r/rows/a'] = json({ detail: 'The disk is full.' }, 507)
  await recover()
  expect(await store.all()).toHaveLength(2)
  expect(session().notices.at(-1)!.text).toContain('waits in this browser: The disk is full.')
})
