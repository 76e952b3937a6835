type Turn = { since: number; revision: boolean; run: () => void }

/** Revisions and questions wait here, in their order, while the sound needs the time of the worker. */
export class Turns {
  private waiting: Turn[] = []

  constructor(
    private now: () => number = () => performance.now(),
    /** Milliseconds after which one is taken though there is no time. */
    private patience = 300,
  ) {}

  get empty() {
    return this.waiting.length === 0
  }

  add(run: () => void, revision = false) {
    this.waiting.push({ since: this.now(), revision, run })
  }

  /** Runs them for as long as there is time; where there never is, one that has waited long. */
  run(free: () => boolean) {
    const late = (t: Turn) => this.now() - t.since > this.patience
    for (let i = 0; this.waiting.length && (free() || (i === 0 && late(this.waiting[0]!))); i++)
      this.waiting.shift()!.run()
  }

  /** Takes all revisions that wait: an order may be about what they bring. */
  catchUp() {
    while (this.waiting.some((t) => t.revision)) this.waiting.shift()!.run()
  }
}
