import { HEAD, IN_FRAMES, PORTION, type Shared } from './ring'

/** How long the lead is, in seconds: so late is what was played at its far end. */
export const LEAD_SECONDS = 0.06

/** How many portions may come at once instead of one by one, and every how many of the song's portions one is lost. */
const BURST = 8
export const LOST = 701

/** Whether a portion that was played at a frame of the song is lost on its way. */
export const isLost = (song: number) => Math.floor(song / PORTION) % LOST === 350

/** The long lead: it stands in for a window's own input, and fills the same ring as one. At its far end a reader hears the
    song and reads to it; what is read comes late, in bursts, and some of it is lost. */
export class Lead {
  private head: Int32Array
  private inHead: Int32Array
  private ring: Float32Array
  private marks: Int32Array
  private clock = 0 // the frame of the clock as far as which it has come
  private next = -Infinity // the frame of the ring that was heard then
  private rolled = false // the song ran when it was looked at last
  private late: number // frames
  private bursts = 0

  constructor(
    shared: Shared,
    /** The song frame that stands at a place of the ring for the ears. */
    private songAt: (ring: number) => number | null,
    /** What is read to a stretch of the song, in pairs. */
    private read: (song: number, frames: number) => Float32Array,
    rate: number,
  ) {
    this.head = new Int32Array(shared.head)
    this.inHead = new Int32Array(shared.inHead)
    this.ring = new Float32Array(shared.inRing)
    this.marks = new Int32Array(shared.inMarks)
    this.clock = this.now
    this.late = Math.round(LEAD_SECONDS * rate)
  }

  private get now() {
    return Atomics.load(this.head, HEAD.now)
  }

  /** Lets arrive what is due. */
  arrive() {
    const now = this.now
    const runs = Atomics.load(this.head, HEAD.running) === 1
    const due = Math.floor((now - this.clock) / PORTION)
    if (due > IN_FRAMES / PORTION / 2)
      this.clock = now // nobody looked for long
    else if (due > this.heldBack()) {
      const heard = Atomics.load(this.head, HEAD.before)
      // less was heard than time has passed where the ears ran dry: it stands still then, and never goes back
      const exact = heard - (now - this.clock)
      if (exact > this.next || heard < this.next) this.next = exact
      for (; this.clock + PORTION <= now; this.clock += PORTION) {
        this.put(this.next, runs && this.rolled)
        this.next = Math.min(heard, this.next + PORTION)
      }
    }
    this.rolled = runs
  }

  /** How many portions wait for more this time. */
  private heldBack = () => (Math.imul(++this.bursts, 0x9e3779b1) >>> 8) % BURST

  private put(heard: number, rolls: boolean) {
    const write = Atomics.load(this.inHead, 0) >>> 0
    const mark = 2 * ((write / PORTION) % (IN_FRAMES / PORTION))
    this.marks[mark] = heard
    this.marks[mark + 1] = rolls ? 1 : 0
    const song = rolls ? this.songAt(heard - this.late) : null
    const first = 2 * (write % IN_FRAMES)
    if (song === null || isLost(song)) this.ring.fill(0, first, first + 2 * PORTION)
    else this.ring.set(this.read(song, PORTION), first)
    Atomics.store(this.inHead, 0, (write + PORTION) | 0)
  }
}
