export type Missing = { hash: string; page: number }
type Keep = (m: Missing, bytes: Uint8Array, channels: number) => void

/** Fetches pages of audio, each once at a time and again where that fails; what cannot be had is lost until
    somebody forgets it. */
export class Pages {
  private fetching = new Map<string, Promise<void>>()
  private gone = new Set<string>()

  constructor(
    private keep: Keep,
    private trouble: (text: string) => void,
    private pause = 200, // ms before the second attempt, then twice as long each time
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
    if (this.gone.has(key)) return Promise.resolve()
    const running = this.fetching.get(key)
    if (running) return running
    const p = this.load(m, key).finally(() => this.fetching.delete(key))
    this.fetching.set(key, p)
    return p
  }

  private async load(m: Missing, key: string) {
    for (let attempt = 0; ; attempt++) {
      try {
        const r = await fetch(`/api/audio/${m.hash}/pcm/${m.page}`)
        if (!r.ok) throw new Error(`the server answered ${r.status}`)
        const channels = Number(r.headers.get('X-Channels') ?? 1)
        return this.keep(m, new Uint8Array(await r.arrayBuffer()), channels)
      } catch (e) {
        if (attempt < 3) {
          await new Promise((r) => setTimeout(r, this.pause * 2 ** attempt))
          continue
        }
        this.gone.add(key)
        this.trouble(
          `A piece of audio cannot be fetched (${String(e)}). Playback waits; press Play to try again.`,
        )
        return
      }
    }
  }
}
