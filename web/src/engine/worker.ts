/// <reference lib="webworker" />
/* The engine's worker: holds the WebAssembly engine, keeps the ring full, and
   fetches pages of audio before they are needed. */
import './gen/wasm_exec.js'
import type { Trip } from '../api/types'
import { Arrivals } from './arrivals'
import type { Exports } from './exports'
import { type Missing, Pages } from './pages'
import { breathe, sleepUntilChanged } from './pauses'
import { type FromWorker, HEAD, type Question, RING_FRAMES, type Shared, STATE, type ToWorker } from './ring'
import { Stamping } from './stamping'
import { Turns } from './turns'

declare const Go: new () => {
  importObject: WebAssembly.Imports
  exit: (code: number) => void
  run(i: WebAssembly.Instance): Promise<void>
}

let engine: Exports
let early: ToWorker[] | null = [] // what came before the engine was there
let loaded = false
let rate = 48000
let target = 4800 // frames kept ahead of the ears
let head: Int32Array<SharedArrayBuffer> | null = null
let ring: Float32Array
const stamping = new Stamping()
let sinceLevels = 0
let layoutId = 0
let layoutText = ''
let layoutPlan = -1
let asked = false // somebody wants sound
let prime = 4800 // frames that must be ahead before the ears get any
/** Seconds that are kept ahead while the browser has not yet made the engine fast: it stumbles at first. */
const UNPRACTISED = 0.25
let practised = false // it has rehearsed, or played for some seconds
let played = 0 // frames, until it has
const ahead = () => (practised ? target : Math.max(target, UNPRACTISED * rate))
let pumping = false
let wakeUp: (() => void) | null = null
let watching = false // somebody looks at a spectrum
let spectrumAt = 0
let costsAt = 0
let busy = 0 // part of real time that rendering takes
const encoder = new TextEncoder()
const decoder = new TextDecoder()

const say = (m: FromWorker) => postMessage(m)

const pages = new Pages(
  (m, bytes, channels) => {
    const at = engine.room(64 + bytes.length)
    const memory = new Uint8Array(engine.mem.buffer)
    memory.set(encoder.encode(m.hash), at)
    memory.set(bytes, at + 64)
    engine.page(m.page, bytes.length / 4 / channels, channels)
  },
  (trouble) => say({ say: 'trouble', text: trouble }),
)

function write(text: string): number {
  const bytes = encoder.encode(text)
  const at = engine.room(bytes.length)
  new Uint8Array(engine.mem.buffer, at, bytes.length).set(bytes)
  return bytes.length
}

const text = () =>
  decoder.decode(new Uint8Array(engine.mem.buffer, engine.textAt(), engine.textLength()).slice())

async function start(shared: Shared | null, program: string | WebAssembly.Module) {
  if (shared) {
    head = new Int32Array(shared.head)
    ring = new Float32Array(shared.ring)
    stamping.share(shared)
    arrivals.share(shared)
  }
  const go = new Go()
  const compiled = typeof program === 'string' ? await compile(program) : program
  const instance = await WebAssembly.instantiate(compiled, go.importObject)
  // after a fault exports answer nothing and say nothing: whoever ends, ends here
  go.exit = ended
  void go.run(instance).then(ended, ended)
  engine = instance.exports as unknown as Exports
  const waited = early
  early = null
  for (const m of waited ?? []) accept(m)
}

/** Compiles the engine while it still comes, and says what came of it: the next worker has it then. */
async function compile(wasm: string) {
  const program = await WebAssembly.compileStreaming(fetch(wasm))
  say({ say: 'compiled', program })
  return program
}

let over = false
/** The Go program has come to an end, which it should not: the page makes a new engine. */
function ended() {
  if (over) return
  over = true
  asked = loaded = false
  if (head) Atomics.store(head, HEAD.running, 0)
  say({ say: 'stopped' })
  close() // what is under way would call a program that has ended
}

let starting = 0 // counts what is asked of the transport: a Play that waits for its audio may be overtaken
let begins = false // Play was asked for and waits for its audio
let toldTransport = ''
/** Says what the engine does, when that has changed: whether the song runs, and whether it is muted for protection. */
function tellTransport() {
  const state = begins ? STATE.waiting : engine.state()
  const trip = engine.trip() ? text() : ''
  const now = `${state} ${trip}`
  if (now === toldTransport) return
  toldTransport = now
  say({ say: 'transport', state, trip: trip ? (JSON.parse(trip) as Trip) : null })
}

let draining: ReturnType<typeof setInterval> | undefined
/** Takes the sound out of the ring in its own time while no output does, so that the song goes on in silence. */
function drain(on: boolean) {
  clearInterval(draining)
  if (!on || !head) return
  let last = performance.now()
  draining = setInterval(() => {
    const now = performance.now()
    const due = Math.min(RING_FRAMES, Math.round(((now - last) / 1000) * rate))
    last = now
    if (Atomics.load(head!, HEAD.running) !== 1) return
    Atomics.add(head!, HEAD.read, Math.min(queued(), due))
    Atomics.notify(head!, HEAD.read)
  }, 20)
}

function document(json: string, fresh: boolean) {
  const about = JSON.parse(json) as { id: string; sampleRate: number }
  rate = about.sampleRate
  pages.project = about.id
  if (fresh) pages.forget()
  took(engine.document(write(json), fresh ? 1 : 0))
}

/** A revision, or what is tried on it, is read, prepared and heard in three turns: the sound goes on between them. */
function inSteps(read: () => number, heard: (refused: number) => void) {
  let refused = 0
  inTurn(() => (refused = read()) && heard(refused), true)
  inTurn(() => refused || engine.prepare(), true)
  inTurn(() => refused || heard(engine.adopt()), true)
}

/** A revision was given to the engine: what follows from it. */
function took(failed: number) {
  if (failed) {
    say({ say: 'trouble', text: `The sound engine refused the project: ${text()}` })
    return
  }
  loaded = true
  tellTimeline()
  tellLayout(true)
  void fetchAhead()
  noticeLater()
  void rehearse()
}

let timed = ''
/** Says where things stand in time, when that has changed: what is drawn from it need not be drawn again. */
function tellTimeline() {
  engine.timeline()
  const now = text()
  if (now === timed) return
  timed = now
  say({ say: 'timeline', json: now })
}

let sounded = ''
let lasting = 0 // the load over the last ten seconds or so: a short spike is no sounding
/** Says what the engine notices, when that has changed. */
function sound() {
  engine.soundings(lasting)
  const now = text()
  if (now === sounded) return
  sounded = now
  say({ say: 'soundings', json: now })
}

let noticing = false
/** What the engine notices takes a while to find: it waits for its turn, once for all revisions until then. */
function noticeLater() {
  if (noticing) return
  noticing = true
  inTurn(() => {
    noticing = false
    sound()
  })
}

/** How long the page is left to draw itself and to ask before the engine rehearses, in ms. */
const BEFORE_REHEARSAL = 500

let rehearsing = false
/** Plays for nobody, so that the browser has compiled the engine well before it is heard. What was asked goes before. */
async function rehearse() {
  if (rehearsing) return
  rehearsing = true
  await new Promise((r) => setTimeout(r, BEFORE_REHEARSAL))
  let since = performance.now()
  while (!asked && !begins && !over) {
    if (!turns.empty) answerSome()
    else if (!engine.rehearse()) {
      practised = true
      break
    }
    if (performance.now() - since < 5) continue
    await breathe() // somebody may press Play
    since = performance.now()
  }
  rehearsing = false
  answerSome()
}

function tellLayout(fresh = false) {
  const plan = engine.plan()
  if (plan === layoutPlan && !fresh) return
  layoutPlan = plan
  engine.layout()
  const now = text()
  if (now === layoutText) return
  layoutText = now
  layoutId++
  say({ say: 'layout', id: layoutId, points: JSON.parse(now) })
}

/** Fetches what is missing within the next seconds; resolves when it is there. */
async function fetchAhead(seconds = 8): Promise<void> {
  if (!loaded || engine.need(seconds * rate) === 0) return
  await pages.fetch((JSON.parse(text()) as Missing[]).slice(0, 24))
}

/** What has been worked out is fetched, and played once the next seconds of it are there. */
async function worked(keys: string[]) {
  engine.worked(write(keys.join('\n')))
  await fetchAhead()
  await fetchAhead() // what is there now is taken
  tellLayout()
}

const arrivals = new Arrivals({ engine: () => engine, write, text, say, rate: () => rate })

const queued = () => (Atomics.load(head!, HEAD.write) - Atomics.load(head!, HEAD.read)) | 0

/** One block into the ring; false when pages are missing. */
function block(): boolean {
  const position = engine.position()
  const n = engine.render()
  if (n === 0) return false
  const out = new Float32Array(engine.mem.buffer, engine.outAt(), 2 * n)
  const at = Atomics.load(head!, HEAD.write)
  const first = (at >>> 0) % RING_FRAMES
  const whole = Math.min(n, RING_FRAMES - first)
  ring.set(out.subarray(0, 2 * whole), 2 * first)
  if (whole < n) ring.set(out.subarray(2 * whole), 0)
  arrivals.wrote(at, position, n)
  Atomics.store(head!, HEAD.write, (at + n) | 0)
  sinceLevels += n
  if (sinceLevels >= 1024) {
    sinceLevels = 0
    stamp((at + n) | 0, position + n)
  }
  return true
}

function stamp(write: number, song: number) {
  tellLayout()
  stamping.put(engine, { write, song, layout: layoutId, load: busy })
}

/** Sleeps until the worklet has read on, something was asked, or a moment is over. */
const sleep = () => sleepUntilChanged(head!, HEAD.read, new Promise<void>((resolve) => (wakeUp = resolve)))

async function pump() {
  if (pumping || !head || !loaded) return
  pumping = true
  let waited = false
  let broken = ''
  let checked = 0
  costsAt = performance.now() // the beginning is busy enough
  while (asked) {
    const begun = performance.now()
    let made = 0
    let stuck = false
    while (queued() < ahead() && made < 2048) {
      const before = Atomics.load(head, HEAD.write)
      if (!block()) {
        stuck = true
        break
      }
      made += (Atomics.load(head, HEAD.write) - before) | 0
    }
    practised ||= (played += made) > 3 * rate
    if (made > 0) busy = busy * 0.95 + 0.05 * ((performance.now() - begun) / 1000 / (made / rate))
    if (stuck) {
      Atomics.store(head, HEAD.running, 0)
      prime = 2048
      if (!waited) say({ say: 'waiting', pages: 1 })
      waited = true
      stamp(Atomics.load(head, HEAD.write), engine.position())
      tellTransport()
      arrivals.drain()
      await fetchAhead()
      await breathe() // whatever it waits for, it hears what is asked meanwhile
      runSome()
      if (pages.lost > 0) await sleep()
      continue
    }
    if (waited) {
      waited = false
      say({ say: 'waiting', pages: 0 })
    }
    if (over) break
    tellTransport()
    arrivals.drain()
    arrivals.tell(performance.now())
    if (queued() >= Math.min(prime, target)) Atomics.store(head, HEAD.running, 1)
    const now = performance.now()
    if (watching && now - spectrumAt > 80) {
      spectrumAt = now
      const count = engine.spectrum()
      if (count)
        say({
          say: 'spectrum',
          values: new Float32Array(engine.mem.buffer, engine.levelsAt(), count).slice(),
        })
    }
    if (now - costsAt > 1000) {
      costsAt = now
      engine.costs()
      say({ say: 'costs', json: text(), memory: engine.mem.buffer.byteLength })
      lasting += (busy - lasting) * 0.1
      sound()
    }
    if (++checked % 40 === 0) {
      void fetchAhead()
      engine.broken()
      const silenced = text()
      if (silenced !== broken && (broken = silenced) !== 'null')
        say({ say: 'broken', stages: JSON.parse(silenced) })
    }
    if (engine.quiet()) {
      // nothing sounds and nothing rolls: rest until somebody asks
      Atomics.store(head, HEAD.running, 0)
      stamp(Atomics.load(head, HEAD.write), engine.position())
      tellTransport()
      asked = false
      break
    }
    runSome()
    await (queued() >= ahead() ? sleep() : breathe())
  }
  pumping = false
  answerSome()
}

/** Throws away what is in the ring, so that nothing stale is heard. */
function drop() {
  if (!head) return
  Atomics.store(head, HEAD.running, 0)
  prime = 512 // a tail goes on at once
  Atomics.store(head, HEAD.read, Atomics.load(head, HEAD.write))
  Atomics.add(head, HEAD.epoch, 1)
}

function wake() {
  asked = true
  wakeUp?.()
  void pump()
}

const turns = new Turns()
function inTurn(run: () => void, revision = false) {
  turns.add(run, revision)
  if (pumping) wakeUp?.()
  else if (revision) turns.catchUp()
  else answerSome()
}

let answering = false
/** Answers what waits while nothing sounds, a few milliseconds at a time: an order that has come meanwhile, such as to play,
    goes before. */
function answerSome() {
  if (answering || pumping || turns.empty) return
  answering = true
  void breathe().then(() => {
    answering = false
    if (pumping || over) return
    const since = performance.now()
    turns.run(() => performance.now() - since < 4)
    answerSome()
  })
}

/** Whether most of what the ring should hold is in it, or nobody hears it. */
const easy = () => !pumping || !Atomics.load(head!, HEAD.running) || queued() > 0.7 * target

/** Lets revisions and questions have their turn, and the engine tidy up, as long as there is time. */
function runSome() {
  turns.run(easy)
  if (easy()) engine.tidy()
}

/** Answers a question: what the engine left as text, or why it could not. */
function reply(ticket: number, failed: number) {
  say({ say: 'answer', ticket, json: failed ? '' : text() || 'null', trouble: failed ? text() : '' })
}

const answer = (m: Question) => reply(m.ticket, engine.ask(write(`${m.name}\n${m.of}`)))

/** While nothing plays, a stamp shows where the song stands. */
function show() {
  if (head && !pumping) stamp(Atomics.load(head, HEAD.write), engine.position())
  tellTransport()
}

/** Begins once what comes first is there, unless something else was asked for meanwhile. */
function play() {
  pages.forget()
  begins = true
  tellTransport()
  const mine = ++starting
  void fetchAhead(2).then(() => {
    if (mine !== starting) return
    begins = false
    engine.play()
    prime = target
    wake()
  })
}

function stop() {
  starting++
  begins = false
  engine.stop()
  tellTransport()
  drop()
  wake()
}

function locate(frame: number, grid: number) {
  engine.locate(frame, grid)
  void fetchAhead()
  if (engine.state() === STATE.stopped) return show()
  drop() // play what fades out, not what was queued before it
  wake()
}

type Do<K extends ToWorker['do']> = ToWorker & { do: K }
type Later = Exclude<ToWorker['do'], 'start' | 'drain' | 'document' | 'revision' | 'buffer' | 'ask'>

/** What is done at once when the engine is there. */
const at: { [K in Later]: (m: Do<K>) => void } = {
  play,
  stop,
  locate: (m) => locate(m.frame, m.grid),
  loop: (m) => engine.loop(m.from, m.to),
  anyway: (m) => {
    engine.anyway(m.on ? 1 : 0)
    tellTransport()
  },
  atEnd: (m) => engine.atEnd(m.on ? 1 : 0),
  fault: () => engine.fault(),
  measureAgain: () => engine.measureAgain(),
  hear: (m) => engine.hear(write(JSON.stringify(m.hearing))),
  take: (m) => engine.take(write(`${m.owner}\n${m.name}`), m.on ? 1 : 0),
  move: (m) => engine.move(write(`${m.owner}\n${m.name}`), m.value),
  try: (m) =>
    inSteps(
      () => engine.try(write(m.json)),
      (refused) => {
        reply(m.ticket, refused)
        tellLayout()
      },
    ),
  listen: (m) => {
    if (engine.listen(write(JSON.stringify(m.point))) !== 0) say({ say: 'trouble', text: text() })
  },
  trial: (m) => engine.trial(write(m.json)),
  worked: (m) => void worked(m.keys),
  ready: (m) => arrivals.ready(m.rows),
  record: (m) => arrivals.record(m.recording, m.project, m.rows),
  own: (m) => arrivals.takeOwn(m.on, m.sides, m.lead),
  endRecord: () => void arrivals.endRecord(),
  click: (m) => engine.click(m.on ? 1 : 0, m.level),
  countIn: (m) => engine.countIn(m.bars),
  rms: (m) => engine.rms(m.on ? 1 : 0),
  watch: (m) => {
    watching = m.stage !== ''
    engine.watch(write(m.stage))
  },
}

onmessage = (e: MessageEvent<ToWorker>) => {
  const m = e.data
  if (m.do === 'start') {
    start(m.shared, m.program).catch((err) =>
      say({ say: 'trouble', text: `The sound engine did not start: ${String(err)}` }),
    )
    return
  }
  if (m.do === 'drain') return drain(m.on)
  if (early) {
    early.push(m)
    return
  }
  accept(m)
}

function accept(m: ToWorker) {
  if (over || m.do === 'start' || m.do === 'drain') return
  if (m.do === 'document') return inTurn(() => document(m.json, m.fresh), true)
  if (m.do === 'revision') return inSteps(() => engine.revision(write(m.json)), took)
  if (m.do === 'buffer') {
    target = m.frames
    return
  }
  if (!loaded) return
  if (m.do === 'ask') return inTurn(() => answer(m))
  turns.catchUp()
  ;(at[m.do] as (m: ToWorker) => void)(m)
}
