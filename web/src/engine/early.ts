import wasm from './gen/engine.wasm?url'
import { allocate, type FromWorker, type Shared, type ToWorker } from './ring'

/** A worker in which an engine starts, the memory that is shared with it, and what it said before anybody listened. */
export type Started = { worker: Worker; shared: Shared | null; said: FromWorker[] }

/** The engine as the browser has compiled it, and made fast while it was used: the next one begins with it. */
let program: WebAssembly.Module | null = null

function start(): Started {
  const shared = globalThis.crossOriginIsolated ? allocate() : null
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' })
  worker.postMessage({ do: 'start', shared, program: program ?? wasm } satisfies ToWorker)
  const said: FromWorker[] = []
  worker.addEventListener('message', (e: MessageEvent<FromWorker>) => {
    if (e.data.say === 'compiled') program = e.data.program
  })
  worker.onmessage = (e: MessageEvent<FromWorker>) => void said.push(e.data)
  return { worker, shared, said }
}

let waiting: Started | null = null
let used = 0

/** Lets an engine begin before a project is there: while the page itself still loads, or while somebody chooses a project.
    Where one is used, none is started for nobody. */
export function startEarly() {
  if (!used) waiting ??= start()
}

/** The one that was started early, or a new one. */
export function startWorker(): Started {
  const s = waiting ?? start()
  waiting = null
  used++
  return s
}

/** Ends one that was used. */
export function endWorker(worker: Worker) {
  worker.terminate()
  used--
}
