import type { Run } from '../api/types'
import type { Taken } from './recorder'
import { IN_FRAMES, PORTION, type Shared, type Side } from './ring'

/** What was written to the ring for the ears, and where in the song that is. */
type Written = { ring: number; song: number; frames: number; rolls: boolean }

/** How many of these are kept: as many blocks as the ring holds, and some. */
const KEPT = 4096

/** How many portions before somebody records are recorded too: ten seconds at 48 kHz (engine.keptSeconds). */
const KEPT_PORTIONS = 3750

/** The window's own input, as the worker takes it out of its ring. Where each portion belongs follows from what was heard
    when it came: if playback waits, the input goes on, and a new run begins behind it. */
export class OwnInput {
  private head: Int32Array
  private ring: Float32Array
  private marks: Int32Array
  private read = 0
  private fed = 0 // as far as which the engine has been given what came
  private begun = 0
  private said = 0 // where it was said that it is recorded
  private written: Written[] = []
  private recording = false
  private at = 0
  private runs: Run[] = []
  private parts: Float32Array[] = []
  /** What has come since the engine was fed. */
  private fresh: Float32Array[] = []
  sides: Record<string, Side> = {}

  constructor(shared: Shared) {
    this.head = new Int32Array(shared.inHead)
    this.ring = new Float32Array(shared.inRing)
    this.marks = new Int32Array(shared.inMarks)
  }

  /** Begins with what comes from now on. */
  begin() {
    this.begun = this.read = this.fed = Atomics.load(this.head, 0) >>> 0
    this.fresh = []
  }

  /** Records from now on, and what has come during the last seconds while the song ran; or no longer. */
  record(on: boolean) {
    this.recording = on
    this.at = 0
    this.runs = []
    this.parts = []
    this.said = this.read
    if (on) this.read = Math.max(this.begun, this.read - KEPT_PORTIONS * PORTION)
  }

  /** A block has been written to the ring for the ears. */
  wrote(ring: number, song: number, frames: number, rolls: boolean) {
    this.written.push({ ring, song, frames, rolls })
    if (this.written.length > 2 * KEPT) this.written.splice(0, KEPT)
  }

  /** Takes what has come out of the ring. */
  drain() {
    const write = Atomics.load(this.head, 0) >>> 0
    if (write - this.read > IN_FRAMES - 4096) this.read = write - IN_FRAMES + 4096 // it was not looked at for ten seconds
    for (; this.read < write; this.read += PORTION) {
      const first = 2 * (this.read % IN_FRAMES)
      const data = this.ring.slice(first, first + 2 * PORTION)
      if (this.read >= this.fed) {
        this.fresh.push(data)
        this.fed = this.read + PORTION
      }
      if (this.recording) this.take(data, this.songAt(this.read))
    }
  }

  private take(data: Float32Array, song: number | null) {
    if (song !== null) this.shorten(song)
    const last = this.runs.at(-1)
    if (song === null && !last) return // the song has not begun
    const jumps = last && song !== null && song !== last.song + last.frames
    if (jumps && this.read < this.said) {
      // what came before a jump, and before anybody said that it is recorded, is no part of it
      this.at = 0
      this.runs = []
      this.parts = []
    }
    if (song !== null) {
      const goesOn = last && last.input + last.frames === this.at && last.song + last.frames === song
      if (goesOn) last.frames += PORTION
      else this.runs.push({ input: this.at, song, frames: PORTION })
    }
    this.parts.push(data)
    this.at += PORTION
  }

  /** Where the ring for the ears ran dry within the portion before, less of it was heard than it is long, or nothing: only
      that much of it belongs to the song. Else the song would seem to go back, which begins another take. */
  private shorten(song: number) {
    const last = this.runs.at(-1)
    if (!last) return
    const back = last.song + last.frames - song
    if (back <= 0 || back > PORTION) return
    last.frames -= back
    if (last.frames <= 0) this.runs.pop()
  }

  /** The song frame that was heard when a portion came; null: the song stood. */
  private songAt(frame: number): number | null {
    const mark = 2 * ((frame / PORTION) % (IN_FRAMES / PORTION))
    if (this.marks[mark + 1] !== 1) return null
    return this.heardAt(this.marks[mark]!)
  }

  /** The song frame that stands at a place of the ring for the ears; null: the song does not run there. */
  heardAt = (heard: number): number | null => {
    for (let i = this.written.length - 1; i >= 0; i--) {
      const w = this.written[i]!
      const into = (heard - w.ring) | 0
      if (into >= 0) return w.rolls && into < w.frames ? w.song + into : null
    }
    return null
  }

  /** What has come for the engine to hear, in pairs. */
  heard(): Float32Array {
    const all = joined(this.fresh)
    this.fresh = []
    return all
  }

  /** What was recorded since it was asked for last; to be given to every row that takes it. */
  taken(): Taken {
    const data = joined(this.parts)
    this.parts = []
    return {
      at: this.at - data.length / 2,
      frames: data.length / 2,
      runs: this.runs.map((r) => ({ ...r })),
      data,
    }
  }

  /** The same as a row takes it. */
  forRow(t: Taken, row: string): Taken {
    const side = this.sides[row] ?? 'both'
    if (side === 'both') return t
    const data = t.data.slice()
    const from = side === 'left' ? 0 : 1
    for (let i = 0; i < data.length; i += 2) data[i] = data[i + 1] = t.data[i + from]!
    return { ...t, data }
  }
}

function joined(parts: Float32Array[]): Float32Array {
  const all = new Float32Array(parts.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const p of parts) {
    all.set(p, at)
    at += p.length
  }
  return all
}
