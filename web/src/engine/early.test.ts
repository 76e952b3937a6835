import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { FromWorker } from './ring'

vi.mock('./gen/engine.wasm?url', () => ({ default: '/engine.wasm' }))

class FakeWorker {
  static all: FakeWorker[] = []
  asked: unknown[] = []
  onmessage: (e: { data: FromWorker }) => void = () => undefined
  constructor() {
    FakeWorker.all.push(this)
  }
  postMessage = (m: unknown) => this.asked.push(m)
}

beforeEach(() => {
  vi.resetModules()
  FakeWorker.all = []
  vi.stubGlobal('Worker', FakeWorker)
})
afterEach(() => vi.unstubAllGlobals())

test('an engine that was started early is the one that is used, with what it has said meanwhile', async () => {
  const { startEarly, startWorker } = await import('./early')
  startEarly()
  startEarly()
  expect(FakeWorker.all, 'once').toHaveLength(1)
  const [first] = FakeWorker.all
  expect(first!.asked).toMatchObject([{ do: 'start', wasm: '/engine.wasm' }])
  first!.onmessage({ data: { say: 'trouble', text: 'The sound engine did not start.' } })
  const used = startWorker()
  expect(used.worker).toBe(first)
  expect(used.said).toEqual([{ say: 'trouble', text: 'The sound engine did not start.' }])
})

test('whoever needs one more gets one, and none is started early for nobody', async () => {
  const { startEarly, startWorker } = await import('./early')
  const one = startWorker()
  startEarly()
  expect(FakeWorker.all).toHaveLength(1)
  expect(startWorker().worker).not.toBe(one.worker)
})
