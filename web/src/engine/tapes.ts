import type { Run } from '../api/types'
import type { TapeStore } from './tapeStore'

/** What has arrived on a row and is not safe yet: pairs of samples, and where they belong. */
export type Part = {
  recording: string
  project: string
  row: string
  /** Frame of the input at which they begin. */
  at: number
  /** All runs there were when they came. */
  runs: Run[]
  gone?: boolean
  data: Float32Array<ArrayBuffer>
}

/** How much is sent at once at most, in frames: little enough that it comes through where the way is bad. */
const MOST = 1 << 17

/** How long is waited after a failure, in ms. */
const AGAIN = 1000

/** For how long an answer is waited: so many ms, and one for every so many bytes that are on their way. */
const PATIENCE = 8000
const BYTES = 100

/** A recording has ended without this window, or is refused: what it holds must be recorded anew. */
export class Over extends Error {}

/** Sends a part, and tells how many frames of its row are safe then; gives up when it is told to. */
export type Send = (p: Part, giveUp: AbortSignal) => Promise<number>

/** Sends a part of a recording to the server. */
export async function sendPart(p: Part, giveUp: AbortSignal): Promise<number> {
  const where = JSON.stringify({ at: p.at, runs: p.runs, gone: p.gone })
  const url = new URL(`/api/recordings/${p.recording}/rows/${encodeURIComponent(p.row)}`, location.origin)
  const body = new Blob([where, '\n', p.data])
  const r = await fetch(new Request(url, { method: 'PUT', body, signal: giveUp })).catch(() => {
    throw new Error('the server cannot be reached')
  })
  const said = (await r.json()) as { frames: number; detail?: string }
  if (r.status >= 400 && r.status < 500) throw new Over(said.detail)
  if (!r.ok) throw new Error(said.detail ?? `The server answered ${r.status}.`)
  return said.frames
}

/** Nothing has come of it for long. */
class Late extends Error {}

/** Sends a part, but not for ever: in a connection that is gone it may hang for minutes. It is given up when there is a
    connection again, and when nothing has come of it for so many times as long as one waits for it. */
export async function patiently(send: Send, p: Part, patience = 1): Promise<number> {
  const lost = new AbortController()
  const back = () => lost.abort()
  let late = false
  const giveUp = () => {
    late = true
    lost.abort()
  }
  addEventListener('online', back)
  const waits = setTimeout(giveUp, patience * (PATIENCE + p.data.byteLength / BYTES))
  try {
    return await send(p, lost.signal)
  } catch (e) {
    throw late ? new Late('the server does not answer') : e
  } finally {
    removeEventListener('online', back)
    clearTimeout(waits)
  }
}

/** What this window records, until the server has it: every part is kept in the browser's own storage first, and leaves it
    when the server says that it is on disk. */
export class Tapes {
  private waiting: Part[] = []
  private sending: Promise<void> | null = null
  private keeping: Promise<unknown> = Promise.resolve()
  private over = new Set<string>()
  private patience = 1

  constructor(
    private send: Send,
    private store: TapeStore,
    private tell: (seconds: number, trouble: string) => void,
    private rate: () => number,
  ) {}

  /** How many frames are not safe yet. */
  get unsafe() {
    return this.waiting.reduce((sum, p) => sum + p.data.length / 2, 0)
  }

  /** Takes in what has arrived. */
  put(p: Part) {
    this.waiting.push(p)
    this.keeping = Promise.all([this.keeping, this.store.keep(p)])
    this.flush().catch(() => undefined) // that it is over is said at the end
  }

  /** Ends one: true when all of it is safe, false when what is left lies in the browser's storage. */
  async end(recording: string): Promise<boolean> {
    await this.flush().catch(() => undefined)
    await this.keeping
    return !this.over.has(recording)
  }

  /** Sends what waits; resolves when all is safe, or fails where it cannot be any more. */
  flush(): Promise<void> {
    this.sending ??= this.run().finally(() => (this.sending = null))
    return this.sending
  }

  private async run() {
    while (this.waiting.length) {
      const p = this.gathered()
      let safe: number
      try {
        safe = await patiently(this.send, p, this.patience)
        this.patience = 1
      } catch (e) {
        if (e instanceof Late) this.patience *= 2 // it may be slow only
        if (e instanceof Over) {
          // what is left of it lies in the browser's storage, for those who bring it in
          this.over.add(p.recording)
          const left = this.unsafe
          this.waiting = this.waiting.filter((x) => x.recording !== p.recording)
          this.tell(left / this.rate(), e.message)
          throw e
        }
        this.tell(this.unsafe / this.rate(), e instanceof Error ? e.message : String(e))
        await new Promise((r) => setTimeout(r, AGAIN))
        continue
      }
      this.settle(p, safe)
      this.tell(this.unsafe / this.rate(), '')
    }
  }

  /** What waits of the first row, as one part. */
  private gathered(): Part {
    const first = this.waiting[0]!
    const list: Part[] = []
    let end = first.at
    for (const p of this.waiting) {
      if (p.row !== first.row || p.recording !== first.recording) continue
      if (p.at !== end || (list.length && end - first.at > MOST)) break
      list.push(p)
      end += p.data.length / 2
    }
    const data = new Float32Array((end - first.at) * 2)
    for (const p of list) data.set(p.data, (p.at - first.at) * 2)
    const last = list.at(-1)!
    return { ...first, runs: last.runs, gone: last.gone, data }
  }

  /** So many frames of a row are on disk. */
  private settle(sent: Part, safe: number) {
    const done = (p: Part) =>
      p.row === sent.row && p.recording === sent.recording && p.at + p.data.length / 2 <= safe
    const gone = this.waiting.filter(done)
    this.waiting = this.waiting.filter((p) => !done(p))
    for (const p of gone) void this.store.drop(p)
    if (!gone.length && safe < sent.at) {
      // the server has lost what it had said it has: there is nothing to send it again from
      this.waiting = this.waiting.filter((p) => p.row !== sent.row || p.recording !== sent.recording)
    }
  }
}
