import type { Run } from '../api/types'
import type { Part, Tapes } from './tapes'

/** How loud what was recorded is along the song: a peak and a mean level for every step of frames. */
export type Overview = { song: number; step: number; levels: Float32Array }

/** Frames of one step. */
const STEP = 1024

/** What has come of a row since it was asked for last. */
export type Taken = { at: number; frames: number; runs: Run[]; gone?: boolean; data: Float32Array }

type Row = { at: number; frames: number; parts: Float32Array[]; runs: Run[]; gone: boolean }

/** Takes what is recorded out of the engine while it plays, and hands it on a second at a time. */
export class Recorder {
  private recording = ''
  private project = ''
  private release: () => void = () => undefined
  private rows = new Map<string, Row>()

  constructor(
    private take: (row: string) => Taken | null,
    private tapes: Tapes,
    private tell: (row: string, overview: Overview, gone: boolean) => void,
    private rate: () => number,
  ) {}

  /** The recording that is under way; empty: none. */
  get id() {
    return this.recording
  }

  /** Begins one. While it runs nobody else takes care of what it has kept in this browser. */
  begin(recording: string, project: string, rows: string[]) {
    this.recording = recording
    this.project = project
    void navigator.locks?.request(lockOf(recording), () => new Promise<void>((r) => (this.release = r)))
    this.rows = new Map(rows.map((row) => [row, { at: 0, frames: 0, parts: [], runs: [], gone: false }]))
  }

  /** Takes what has come; what is less than a second waits for more, but not at the end. */
  drain(all = false) {
    for (const [row, r] of this.rows) {
      const t = this.take(row)
      if (t && t.frames > 0) {
        r.parts.push(t.data)
        r.frames += t.frames
        for (const o of overviews(t)) this.tell(row, o, !!t.gone)
      }
      if (t) {
        if (t.gone && !r.gone) this.tell(row, { song: 0, step: STEP, levels: new Float32Array() }, true)
        r.runs = t.runs
        r.gone = !!t.gone
      }
      if (r.frames >= this.rate() || (all && r.frames > 0)) this.hand(row, r)
    }
  }

  private hand(row: string, r: Row) {
    const data = new Float32Array(2 * r.frames)
    let at = 0
    for (const p of r.parts) {
      data.set(p, at)
      at += p.length
    }
    const part: Part = {
      recording: this.recording,
      project: this.project,
      row,
      at: r.at,
      runs: r.runs,
      gone: r.gone,
      data,
    }
    r.at += r.frames
    r.frames = 0
    r.parts = []
    this.tapes.put(part)
  }

  /** Ends it, once all that was handed on is safe; true: it had ended already, and what is left must be recorded anew. */
  async end(): Promise<{ recording: string; over: boolean }> {
    const recording = this.recording
    this.recording = ''
    this.rows.clear()
    const safe = await this.tapes.end(recording)
    this.release()
    return { recording, over: !safe }
  }
}

/** The name under which a window says that it looks after a recording. */
export const lockOf = (recording: string) => `shoal recording ${recording}`

/** How loud it is, run by run. */
function overviews(t: Taken): Overview[] {
  const list: Overview[] = []
  for (const run of t.runs) {
    const from = Math.max(t.at, run.input)
    const to = Math.min(t.at + t.frames, run.input + run.frames)
    if (to <= from) continue
    const steps = Math.max(1, Math.round((to - from) / STEP))
    const levels = new Float32Array(2 * steps)
    for (let s = 0; s < steps; s++) {
      const a = from - t.at + Math.round((s * (to - from)) / steps)
      const b = from - t.at + Math.round(((s + 1) * (to - from)) / steps)
      let peak = 0
      let power = 0
      for (let i = 2 * a; i < 2 * b; i++) {
        const v = t.data[i]!
        peak = Math.max(peak, Math.abs(v))
        power += v * v
      }
      levels[2 * s] = peak
      levels[2 * s + 1] = Math.sqrt(power / Math.max(1, 2 * (b - a)))
    }
    list.push({ song: run.song + from - run.input, step: (to - from) / steps, levels })
  }
  return list
}
