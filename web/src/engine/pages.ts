import { soundAt } from '../api/soundAt'

export type Missing = { hash: string; page: number }
type Keep = (m: Missing, bytes: Uint8Array, channels: number) => void

/** Fetches pages of audio, each once at a time and again where that fails; what cannot be had is lost for a while, or
    until somebody forgets it. */
export class Pages {
  /** The project through which they are asked for. */
  project = ''
  private fetching = new Map<string, Promise<void>>()
  private gone = new Map<string, number>() // since when

  constructor(
    private keep: Keep,
    private trouble: (text: string) => void,
    private pause = 200, // ms before the second attempt, then twice as long each time
    private again = 3000, // ms after which what is lost is tried once more
  ) {}

  /** How many could not be had. */
  get lost() {
    return this.gone.size
  }

  /** Tries the lost ones again when they are asked for. */
  forget() {
    this.gone.clear()
  }

  /** Resolves when they are there, or lost. */
  async fetch(list: Missing[]): Promise<void> {
    await Promise.all(list.map((m) => this.one(m)))
  }

  private one(m: Missing): Promise<void> {
    const key = `${m.hash}/${m.page}`
    if (performance.now() - (this.gone.get(key) ?? -Infinity) < this.again) return Promise.resolve()
    this.gone.delete(key)
    const running = this.fetching.get(key)
    if (running) return running
    const p = this.load(m, key).finally(() => this.fetching.delete(key))
    this.fetching.set(key, p)
    return p
  }

  private async load(m: Missing, key: string) {
    for (let attempt = 0; ; attempt++) {
      try {
        const r = await fetch(soundAt(this.project, m.hash, `pcm/${m.page}`))
        if (!r.ok) throw new Error(`the server answered ${r.status}`)
        const channels = Number(r.headers.get('X-Channels') ?? 1)
        return this.keep(m, new Uint8Array(await r.arrayBuffer()), channels)
      } catch (e) {
        if (attempt < 3) {
          await new Promise((r) => setTimeout(r, this.pause * 2 ** attempt))
          continue
        }
        this.gone.set(key, performance.now())
        this.trouble(
          `A piece of audio cannot be fetched (${String(e)}). Playback waits for it, and goes on when it is there.`,
        )
        return
      }
    }
  }
}
