import type { Arrival } from '../api/types'
import type { Exports } from './exports'
import { Lead } from './lead'
import { OwnInput } from './ownInput'
import { Recorder, type Taken } from './recorder'
import { type FromWorker, type Ready, type Shared, type Side, STATE } from './ring'
import { TapeStore } from './tapeStore'
import { sendPart, Tapes } from './tapes'

/** What of the worker they need. */
type Worker = {
  engine: () => Exports
  /** Leaves a text for the engine, and gives what the engine has left. */
  write: (text: string) => number
  text: () => string
  say: (m: FromWorker) => void
  rate: () => number
}

/** How often it is said how loud what arrives is, in ms. */
const TELL = 100

/** What arrives at the rows that are ready, in the worker: how loud it is, what is heard of it, and what is recorded. */
export class Arrivals {
  private own: OwnInput | null = null
  private ownOn = false // some row takes the window's own input
  private shared: Shared | null = null
  private lead: Lead | null = null // that stands in for it
  private ownTaken: Taken | null = null
  private listens = false // some row is ready
  private told = 0
  private counted = 0
  private recorder: Recorder

  constructor(private w: Worker) {
    const tapes = new Tapes(
      sendPart,
      new TapeStore(),
      (seconds, trouble) => w.say({ say: 'unsafe', seconds, trouble }),
      w.rate,
    )
    this.recorder = new Recorder(
      this.taken,
      tapes,
      (row, overview, gone) => w.say({ say: 'taking', row, overview, gone }),
      w.rate,
    )
  }

  share(shared: Shared) {
    this.own = new OwnInput(shared)
    this.shared = shared
  }

  ready(rows: Ready[]) {
    this.listens = rows.length > 0
    const failed = this.w.engine().ready(this.w.write(JSON.stringify(rows)))
    if (failed) this.w.say({ say: 'trouble', text: this.w.text() })
  }

  /** Which rows take the window's own input, and which sides of it. */
  takeOwn(on: boolean, sides: Record<string, Side>, lead: boolean) {
    if (!lead) this.lead = null
    else if (this.shared) this.lead ??= new Lead(this.shared, this.own!.heardAt, this.readFar, this.w.rate())
    if (on && !this.ownOn) this.own?.begin()
    this.ownOn = on && this.own !== null
    if (this.own) this.own.sides = sides
  }

  record(recording: string, project: string, rows: string[]) {
    this.w.engine().record(1)
    this.recorder.begin(recording, project, rows)
    this.own?.record(true)
  }

  /** Ends what is recorded: the song may run on. */
  async endRecord() {
    this.drain(true)
    const ends = this.recorder.id ? this.recorder.end() : { recording: '', over: true }
    this.w.engine().record(0)
    this.own?.record(false)
    this.w.say({ say: 'recorded', ...(await ends) })
  }

  /** A block has been written to the ring for the ears. */
  wrote(ring: number, song: number, frames: number) {
    if (!this.ownOn) return
    const e = this.w.engine()
    this.own!.wrote(ring, song, frames, e.state() === STATE.playing && e.counting() === 0)
  }

  /** Hands on what is recorded; what is less than a second waits for more, but not at the end. */
  drain(all = false) {
    this.hearOwn()
    if (!this.recorder.id) return
    this.ownTaken = this.ownOn ? this.own!.taken() : null
    this.recorder.drain(all)
  }

  /** Says how loud what arrives is, and how many beats are still counted before the song begins. */
  tell(now: number) {
    const beats = this.w.engine().counting()
    if (beats !== this.counted) this.w.say({ say: 'counting', beats: (this.counted = beats) })
    if (!this.listens || now - this.told < TELL) return
    this.told = now
    this.w.engine().arriving()
    this.w.say({ say: 'arriving', levels: JSON.parse(this.w.text()) as Record<string, Arrival> })
  }

  /** Lets the engine hear what has come at the window's own input. */
  private hearOwn() {
    if (!this.ownOn) return
    this.lead?.arrive()
    this.own!.drain()
    const heard = this.own!.heard()
    const e = this.w.engine()
    if (heard.length === 0 || e.state() !== STATE.playing) return
    const at = e.room(heard.byteLength)
    new Float32Array(e.mem.buffer, at, heard.length).set(heard)
    e.feed(heard.length / 2)
  }

  /** What is read at the far end of the long lead. */
  private readFar = (song: number, frames: number) => {
    const e = this.w.engine()
    const at = e.lead(song, frames)
    return new Float32Array(e.mem.buffer, at, 2 * frames)
  }

  /** What was recorded of a row since it was asked for last. */
  private taken = (row: string): Taken | null => {
    if (this.ownTaken && row in this.own!.sides) return this.own!.forRow(this.ownTaken, row)
    const e = this.w.engine()
    const frames = e.taken(this.w.write(row))
    if (frames < 0) return null
    const where = JSON.parse(this.w.text()) as Omit<Taken, 'data'>
    return { ...where, data: new Float32Array(e.mem.buffer, e.takenAt(), 2 * frames).slice() }
  }
}
