import wasm from './gen/engine.wasm?url'
import { allocate, type FromWorker, type Shared, type ToWorker } from './ring'

/** A worker in which an engine starts, the memory that is shared with it, and what it said before anybody listened. */
export type Started = { worker: Worker; shared: Shared | null; said: FromWorker[] }

function start(): Started {
  const shared = globalThis.crossOriginIsolated ? allocate() : null
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' })
  worker.postMessage({ do: 'start', shared, wasm } satisfies ToWorker)
  const said: FromWorker[] = []
  worker.onmessage = (e: MessageEvent<FromWorker>) => void said.push(e.data)
  return { worker, shared, said }
}

let waiting: Started | null = null
let taken = false

/** Lets the browser compile an engine while the page itself still loads: that takes the longest until the first sound. */
export function startEarly() {
  if (!taken) waiting ??= start()
}

/** The one that was started early, or a new one. */
export function startWorker(): Started {
  const s = waiting ?? start()
  waiting = null
  taken = true
  return s
}
