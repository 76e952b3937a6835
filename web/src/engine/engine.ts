import type { Overview } from './recorder'
import type { Arrival, Change, Cost, Project, Questions, Sounding, Timeline, Trip } from '../api/types'
import { revisionOf } from './revision'
import { endWorker, startWorker } from './early'
import { Output } from './output'
import {
  type FromWorker,
  HEAD,
  type Hearing,
  type Listening,
  type Point,
  type Ready,
  type Shared,
  type Side,
  SLOT_VALUES,
  SLOTS,
  STAMP,
  STATE,
  type ToWorker,
} from './ring'
import { newestStamp, stampAt } from './stamps'

/** Levels as they are heard at this moment. */
export type Heard = {
  song: number
  /** Where that is, as Go says it: bar and beat from 1, hundredths of a beat. */
  spot: [number, number, number]
  state: number
  load: number
  momentary: number
  short: number
  integrated: number
  truePeak: number
  /** Peaks in dB by point, as "kind owner": left, right. */
  peaks: Map<string, [number, number]>
  /** Mean levels in dB, while they are asked for. */
  means: Map<string, [number, number]>
  reports: Map<string, number[]>
}

const FIRST = 4 // engine.LevelFirst

/** The engine in its worker, and the way to the ears. Plain TypeScript: React stands above it. */
export class Engine {
  private worker: Worker
  private known: Project | null = null
  private shared: Shared | null
  private output: Output | null = null
  private layouts = new Map<number, Point[]>()
  private tickets = new Map<number, (json: string, trouble: string) => void>()
  private ticket = 0
  private loaded: Promise<void>
  private heldPeaks = new Map<string, [number, number]>()
  private heldMeans = new Map<string, [number, number]>()
  private power = false
  private lastSlot = -1
  private lastWrite = -1
  private last: Heard | null = null
  /** What the engine in the worker holds in memory, in bytes. */
  held = 0
  /** Whether sound is asked for, be it there already or not. */
  wanted = false

  onTimeline: (t: Timeline) => void = () => undefined
  /** What the song does, and why its output is muted for protection. */
  onTransport: (state: number, trip: Trip | null) => void = () => undefined
  /** Whether there is a sound output. */
  onOutput: (there: boolean) => void = () => undefined
  onTrouble: (text: string) => void = () => undefined
  onWaiting: (waiting: boolean) => void = () => undefined
  /** The engine ended by itself: it must be made anew. */
  onStopped: () => void = () => undefined
  onBroken: (stages: string[]) => void = () => undefined
  onCosts: (costs: Cost[], memory: number) => void = () => undefined
  onSoundings: (list: Sounding[]) => void = () => undefined
  /** What has just been recorded on a row, and whether its input has gone. */
  onTaking: (row: string, overview: Overview, gone: boolean) => void = () => undefined
  /** How loud what arrives at the rows is that are ready, in dB. */
  onArriving: (levels: Record<string, Arrival>) => void = () => undefined
  /** How many beats are still counted before the song begins. */
  onCounting: (beats: number) => void = () => undefined
  /** How much of what was recorded is not safe yet, and why. */
  onUnsafe: (seconds: number, trouble: string) => void = () => undefined
  onSpectrum: (values: Float32Array) => void = () => undefined

  constructor() {
    const { worker, shared, said } = startWorker()
    this.shared = shared
    this.worker = worker
    let hasSong: () => void = () => undefined
    this.loaded = new Promise((r) => (hasSong = r))
    const hear = (m: FromWorker) => {
      switch (m.say) {
        case 'timeline':
          hasSong()
          this.onTimeline(JSON.parse(m.json))
          break
        case 'layout':
          this.layouts.set(m.id, m.points)
          this.layouts.delete(m.id - 8)
          break
        case 'answer':
          this.tickets.get(m.ticket)?.(m.json, m.trouble)
          this.tickets.delete(m.ticket)
          break
        case 'costs':
          this.held = m.memory
          this.onCosts(JSON.parse(m.json), m.memory)
          break
        case 'soundings':
          this.onSoundings(JSON.parse(m.json))
          break
        case 'spectrum':
          this.onSpectrum(m.values)
          break
        case 'broken':
          this.onBroken(m.stages)
          break
        case 'transport':
          this.wanted = m.state !== STATE.stopped
          this.onTransport(m.state, m.trip)
          break
        case 'taking':
          this.onTaking(m.row, m.overview, m.gone)
          break
        case 'arriving':
          this.onArriving(m.levels)
          break
        case 'counting':
          this.onCounting(m.beats)
          break
        case 'unsafe':
          this.onUnsafe(m.seconds, m.trouble)
          break
        case 'recorded':
          this.recorded?.(!m.over)
          break
        case 'stopped':
          this.onStopped()
          break
        case 'trouble':
          this.known = null // it may not have taken a revision: the next one is told whole
          this.onTrouble(m.text)
          break
        case 'waiting':
          this.onWaiting(m.pages > 0)
          break
      }
    }
    worker.onmessage = (e: MessageEvent<FromWorker>) => hear(e.data)
    worker.onerror = () => this.onStopped()
    // whoever makes an engine says first who is to be told
    queueMicrotask(() => said.forEach(hear))
  }

  /** The ring itself, for tests that compare what is heard with what is printed. */
  get memory() {
    return this.shared
  }

  /** Whether this page can play sound at all. */
  get audible() {
    return this.shared !== null
  }

  private post(m: ToWorker) {
    this.worker.postMessage(m)
  }

  /** Gives the engine a revision: at once where it can, so that what is asked afterwards is of this one. */
  document(project: Project, fresh: boolean) {
    const known = fresh ? null : this.known
    this.known = project
    if (known?.id === project.id)
      this.post({ do: 'revision', json: JSON.stringify(revisionOf(known, project)) })
    else this.post({ do: 'document', json: JSON.stringify(project), fresh })
  }

  /** Prepares the audio output without opening it, so that it is there at once when somebody wants sound. */
  prepare(rate: number) {
    try {
      this.output ??= this.makeOutput(rate)
    } catch {
      // why there is none is said to whoever wants sound
    }
  }

  private makeOutput(rate: number) {
    if (!this.shared)
      throw new Error(
        'This page is not isolated, so it cannot play sound. Open Shoal by its 127.0.0.1 address.',
      )
    return new Output(rate, this.shared, (there) => {
      this.post({ do: 'drain', on: !there })
      this.onOutput(there)
    })
  }

  /** Opens the audio output; must follow a gesture. Where it does not come within two seconds, the song is followed
      in silence until it does. */
  private async open(rate: number) {
    this.output ??= this.makeOutput(rate)
    await this.output.open()
  }

  async play(rate: number) {
    this.wanted = true
    const mine = ++this.asked
    await this.open(rate) // the song and what is recorded begin when there are ears for them
    await this.loaded
    if (mine === this.asked) this.post({ do: 'play' })
  }
  /** Counts what was asked of the transport: who presses Stop before the song is there wants it no longer. */
  private asked = 0

  stop() {
    this.wanted = false
    this.asked++
    this.post({ do: 'stop' })
  }
  locate = (frame: number, grid = 0) =>
    this.post({ do: 'locate', frame: Math.max(0, Math.round(frame)), grid })
  loop = (from: number, to: number) => this.post({ do: 'loop', from, to })
  hear = (hearing: Hearing) => this.post({ do: 'hear', hearing })
  move = (owner: string, name: string, value: number) => this.post({ do: 'move', owner, name, value })
  measureAgain = () => this.post({ do: 'measureAgain' })
  anyway = (on: boolean) => this.post({ do: 'anyway', on })
  atEnd = (on: boolean) => this.post({ do: 'atEnd', on })
  /** Ends the engine as a fault would: for tests. */
  fault = () => this.post({ do: 'fault' })
  buffer = (frames: number) => this.post({ do: 'buffer', frames })

  listen = (point: Listening) => this.post({ do: 'listen', point })
  trial = (channel: string, trial: string, match: Record<string, number>) =>
    this.post({ do: 'trial', json: JSON.stringify({ channel, trial, match }) })
  /** The stage whose spectrum is kept; empty: none. */
  watched = ''
  watch(stage: string) {
    this.watched = stage
    this.post({ do: 'watch', stage })
  }
  /** What has been worked out for clips, by key. */
  worked = (keys: string[]) => this.post({ do: 'worked', keys })
  rms(on: boolean) {
    this.power = on
    this.post({ do: 'rms', on })
  }

  /** Asks the worker something; it answers when it has a song. */
  private async question(post: (ticket: number) => ToWorker): Promise<{ json: string; trouble: string }> {
    await this.loaded
    const ticket = ++this.ticket
    return new Promise((resolve) => {
      this.tickets.set(ticket, (json, trouble) => resolve({ json, trouble }))
      this.post(post(ticket))
    })
  }

  /** Asks something of the table that Go answers. */
  async ask<N extends keyof Questions>(name: N, of: Questions[N]['of']): Promise<Questions[N]['answer']> {
    const q = JSON.stringify(of)
    const { json, trouble } = await this.question((ticket) => ({ do: 'ask', name, of: q, ticket }))
    if (trouble) throw new Error(trouble)
    return JSON.parse(json) as Questions[N]['answer']
  }

  /** Makes rows ready to be recorded, and the others no longer. */
  makeReady = (rows: Ready[]) => this.post({ do: 'ready', rows })
  /** Takes down what arrives at those rows. */
  record = (recording: string, project: string, rows: string[]) =>
    this.post({ do: 'record', recording, project, rows })
  private recorded: ((safe: boolean) => void) | null = null
  /** Ends that; resolves when all is safe, or (false) when the server no longer takes it. */
  endRecord = () =>
    new Promise<boolean>((resolve) => {
      if (this.closed) return resolve(false)
      this.recorded = resolve
      this.post({ do: 'endRecord' })
    })
  private closed = false
  /** Whether rows take this window's own input, which sides of it, and whether it is the long lead that stands in for it. */
  own = (sides: Record<string, Side>, lead = false) =>
    this.post({ do: 'own', on: Object.keys(sides).length > 0, sides, lead })
  /** Lets what a browser's input gives arrive; null ends it. Needs the output: both share its clock. */
  async listenTo(stream: MediaStream | null, rate: number) {
    if (rate) await this.open(rate)
    await this.output?.takeIn(stream)
  }
  /** After how many seconds what is played comes back at the input. */
  measureDelay = () => this.output?.measure() ?? Promise.reject(new Error('There is no sound output.'))
  /** How loud this window's own input is heard directly: a factor. */
  hearDirectly = (factor: number) => this.output?.hearDirectly(factor)
  /** How loud what arrives at this window's own input is, in dB. */
  get ownLevel() {
    return this.output?.arriving ?? -120
  }
  /** Seconds that the output takes by itself. */
  get latency() {
    return this.output?.latency ?? 0
  }
  click = (on: boolean, level: number) => this.post({ do: 'click', on, level })
  countIn = (bars: number) => this.post({ do: 'countIn', bars })

  /** Lets a hand hold a parameter that has a line, or the line have it again. */
  take = (owner: string, name: string, on: boolean) => this.post({ do: 'take', owner, name, on })
  /** Lets changes be heard without making them; none ends it. */
  async try(changes: Change[]) {
    const json = JSON.stringify(changes)
    const { trouble } = await this.question((ticket) => ({ do: 'try', json, ticket }))
    if (trouble) throw new Error(trouble)
  }

  get underruns() {
    return this.shared ? Atomics.load(new Int32Array(this.shared.head), HEAD.underruns) : 0
  }

  /** Levels and place of the frame that is heard now: what the ears have not got yet is left out. */
  heard(): Heard | null {
    if (!this.shared) return null
    const stamps = new Float64Array(this.shared.stamps)
    const head = new Int32Array(this.shared.head)
    const rate = this.output?.rate ?? 48000
    const late = (this.output?.latency ?? 0) * rate
    const now = Atomics.load(head, HEAD.read) - late
    const best = stampAt(stamps, now, Atomics.load(head, HEAD.running) === 1)
    if (best < 0) return null
    const at = best * STAMP.size
    const age = now - stamps[at + STAMP.write]!
    const state = stamps[at + STAMP.state]!
    const song = stamps[at + STAMP.song]! + (state === STATE.playing ? Math.min(Math.max(age, 0), 2048) : 0)
    if (best === this.lastSlot && this.last) {
      this.last.song = song
      return this.last
    }
    this.lastSlot = best
    const v = this.slotValues(best)
    const layout = stamps[at + STAMP.layout]!
    const points = this.layouts.get(layout) ?? []
    const peaks = this.heldPeaks
    const means = this.heldMeans
    peaks.clear()
    means.clear()
    const reports = new Map<string, number[]>()
    // means stand behind the reports
    const meansAt = stamps[at + STAMP.count]! - 2 * points.length
    let truePeak = v[3]!
    // slots that were passed since the last look count too: a peak may lie in any of them
    const until = stamps[at + STAMP.write]!
    const passed: Float32Array[] = [v]
    for (let s = 0; s < SLOTS; s++) {
      const write = stamps[s * STAMP.size + STAMP.write]!
      if (
        s !== best &&
        write > this.lastWrite &&
        write < until &&
        stamps[s * STAMP.size + STAMP.layout] === layout
      )
        passed.push(this.slotValues(s))
    }
    this.lastWrite = until
    for (const x of passed) truePeak = Math.max(truePeak, x[3]!)
    points.forEach((p, i) => {
      const key = `${p.kind} ${p.owner}`
      let l = -120
      let r = -120
      for (const x of passed) {
        l = Math.max(l, x[FIRST + 2 * i]!)
        r = Math.max(r, x[FIRST + 2 * i + 1]!)
      }
      peaks.set(key, [l, r])
      if (this.power) means.set(key, [v[meansAt + 2 * i]!, v[meansAt + 2 * i + 1]!])
      if (p.report >= 0) {
        const at = FIRST + 2 * points.length + p.report
        reports.set(p.owner, [v[at]!, v[at + 1]!, v[at + 2]!])
      }
    })
    this.last = {
      song,
      spot: [stamps[at + STAMP.bar]!, stamps[at + STAMP.beat]!, stamps[at + STAMP.part]!],
      state,
      load: stamps[at + STAMP.load]!,
      momentary: v[0]!,
      short: v[1]!,
      integrated: v[2]!,
      truePeak,
      peaks,
      means,
      reports,
    }
    return this.last
  }

  /** The song frame at which the engine stands: ahead of what is heard, and elsewhere after a jump that is not heard
      yet. */
  stands(): number {
    if (!this.shared) return 0
    const stamps = new Float64Array(this.shared.stamps)
    const newest = newestStamp(stamps)
    return newest < 0 ? 0 : stamps[newest * STAMP.size + STAMP.song]!
  }

  private slotValues(slot: number) {
    return new Float32Array(this.shared!.values, slot * SLOT_VALUES * 4, SLOT_VALUES)
  }

  close() {
    if (this.closed) return
    this.closed = true
    endWorker(this.worker)
    if (this.shared) Atomics.store(new Int32Array(this.shared.head), HEAD.running, 0) // the worklet fades out
    for (const answer of this.tickets.values()) answer('', 'The sound engine was closed.')
    this.tickets.clear()
    this.recorded?.(false)
    this.output?.close()
  }
}
