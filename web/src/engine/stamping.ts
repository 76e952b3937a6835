import type { Exports } from './exports'
import { type Shared, SLOT_VALUES, SLOTS, STAMP } from './ring'

/** What the worker lets the page know of the sound in memory that they share: levels, where the song is, the load, each as of a
    frame of the ring. */
export class Stamping {
  private stamps: Float64Array = new Float64Array()
  private values: Float32Array = new Float32Array()
  private slot = 0
  private made = 0 // while nothing plays, many of them are for the same frame

  share(shared: Shared) {
    this.stamps = new Float64Array(shared.stamps)
    this.values = new Float32Array(shared.values)
  }

  /** Notes how things stand; who reads meanwhile finds no frame in it, and looks at another. */
  put(engine: Exports, now: { write: number; song: number; layout: number; load: number }) {
    const count = engine.readLevels()
    this.slot = (this.slot + 1) % SLOTS
    const s = this.slot * STAMP.size
    this.stamps[s + STAMP.write] = NaN
    this.values.set(
      new Float32Array(engine.mem.buffer, engine.levelsAt(), Math.min(count, SLOT_VALUES)),
      this.slot * SLOT_VALUES,
    )
    this.stamps[s + STAMP.song] = now.song
    this.stamps[s + STAMP.state] = engine.state()
    this.stamps[s + STAMP.layout] = now.layout
    this.stamps[s + STAMP.count] = count
    this.stamps[s + STAMP.load] = now.load
    this.stamps[s + STAMP.turn] = ++this.made
    const spot = new Float64Array(engine.mem.buffer, engine.spot(now.song), 3)
    this.stamps[s + STAMP.bar] = spot[0]!
    this.stamps[s + STAMP.beat] = spot[1]!
    this.stamps[s + STAMP.part] = spot[2]!
    this.stamps[s + STAMP.write] = now.write
  }
}
