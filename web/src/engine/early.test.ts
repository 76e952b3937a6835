import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { FromWorker } from './ring'

vi.mock('./gen/engine.wasm?url', () => ({ default: '/engine.wasm' }))

class FakeWorker extends EventTarget {
  static all: FakeWorker[] = []
  asked: unknown[] = []
  onmessage: (e: { data: FromWorker }) => void = () => undefined
  terminate = vi.fn()
  constructor() {
    super()
    FakeWorker.all.push(this)
  }
  postMessage = (m: unknown) => this.asked.push(m)
  /** Lets it say something. */
  says(data: FromWorker) {
    const e = new MessageEvent('message', { data })
    this.dispatchEvent(e)
    this.onmessage(e)
  }
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
  expect(first!.asked).toMatchObject([{ do: 'start', program: '/engine.wasm' }])
  first!.says({ say: 'trouble', text: 'The sound engine did not start.' })
  const used = startWorker()
  expect(used.worker).toBe(first)
  expect(used.said).toEqual([{ say: 'trouble', text: 'The sound engine did not start.' }])
})

test('whoever needs one more gets one, and none is started early for nobody', async () => {
  const { endWorker, startEarly, startWorker } = await import('./early')
  const [one, other] = [startWorker(), startWorker()]
  expect(other.worker).not.toBe(one.worker)
  startEarly()
  endWorker(one.worker)
  startEarly()
  expect(FakeWorker.all, 'while one is used').toHaveLength(2)
  endWorker(other.worker)
  expect(FakeWorker.all[1]!.terminate).toHaveBeenCalledOnce()
  startEarly()
  expect(FakeWorker.all, 'for the project that is opened next').toHaveLength(3)
  expect(startWorker().worker).toBe(FakeWorker.all[2])
})

test('what has been compiled for one is not compiled again for the next', async () => {
  const { endWorker, startWorker } = await import('./early')
  // the smallest program there is: its mark and its version
  const program = new WebAssembly.Module(new Uint8Array([0, 0x61, 0x73, 0x6d, 1, 0, 0, 0]))
  const one = startWorker()
  FakeWorker.all[0]!.says({ say: 'compiled', program })
  endWorker(one.worker)
  startWorker()
  expect(FakeWorker.all[1]!.asked).toMatchObject([{ do: 'start', program }])
})
