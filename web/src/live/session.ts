import type { Operation } from 'fast-json-patch'
import { create } from 'zustand'
import { api, answer, Cancelled, onNameless } from '../api/client'
import type {
  Chain,
  Change,
  ChangeMessage,
  Channel,
  EffectInfo,
  Message,
  Node,
  Person,
  Presence,
  PrintStatus,
  Project,
  Sounding,
  Stage,
  StripParams,
  Trip,
} from '../api/types'
import { Engine, type Timeline } from './engine'
import { gesture } from './gesture'
import { hashOf } from './hash'
import { STATE } from './ring'
import { patched, sameButLines } from './patch'
import { takeDown, takesDown } from './takedown'
import type { Work } from './works'
import { setView, view } from './view'

export type Notice = {
  id: number
  tone: 'info' | 'refused'
  text: string
  action?: { text: string; run: () => void }
}

/** What one window knows of the project it has open. */
export type Session = {
  project: Project | null
  revision: number
  /** The newest revision in which something else has changed than points of lines. */
  shape: number
  connected: boolean
  people: Presence[]
  me: Person | null
  effects: EffectInfo[]
  /** Parameters that rows, sends and stages have besides their effects'. */
  strip: StripParams | null
  timeline: Timeline | null
  prints: PrintStatus[]
  importing: { name: string; progress: number } | null
  /** What this window waits for. */
  works: Work[]
  lastChange: ChangeMessage | null
  notices: Notice[]
  waiting: boolean
  /** Why the output is muted for protection; null: it is not. */
  trip: Trip | null
  /** Whether there is a sound output; only known once it was asked for. */
  output: boolean
  /** Prints of which news have come since this window was opened. */
  news: string[]
  /** A change waits for a name to go through under. */
  naming: ((named: boolean) => void) | null
  broken: string[]
  /** Counts what was let be heard without being made, so that pictures follow. */
  tried: number
  /** What stages cost, in nanoseconds a frame, smoothed. */
  costs: Record<string, number>
  /** What the sound engine holds in memory, in bytes. */
  memory: number
  /** Values under a hand in this window, ahead of the document, by "owner name". */
  moving: Record<string, number>
  /** What Go noticed, the weightiest first. */
  soundings: Sounding[]
  /** Parameters whose lines are being taken down, by "owner name". */
  takingDown: string[]
}

const empty: Session = {
  project: null,
  revision: 0,
  shape: 0,
  connected: false,
  people: [],
  me: null,
  effects: [],
  strip: null,
  timeline: null,
  prints: [],
  importing: null,
  works: [],
  lastChange: null,
  notices: [],
  waiting: false,
  trip: null,
  output: true,
  news: [],
  naming: null,
  broken: [],
  costs: {},
  memory: 0,
  soundings: [],
  tried: 0,
  takingDown: [],
  moving: {},
}

export const useSession = create<Session>(() => empty)
const set = useSession.setState
const now = useSession.getState

let engine: Engine | null = null
let socket: WebSocket | null = null
let openId = ''
let catchingUp: Promise<void> | null = null
let noticeId = 0

export const theEngine = () => engine

export function notice(text: string, tone: Notice['tone'] = 'info', action?: Notice['action']) {
  const id = ++noticeId
  set((s) => ({
    notices: [...s.notices.filter((n) => n.text !== text).slice(-3), { id, tone, text, action }],
  }))
  setTimeout(() => dismiss(id), tone === 'refused' || action ? 9000 : 5000)
}

export const dismiss = (id: number) => set((s) => ({ notices: s.notices.filter((n) => n.id !== id) }))

/** No longer says that a print has ended. */
export const putAwayPrint = (id: string) => set((s) => ({ news: s.news.filter((x) => x !== id) }))

/** Shows a refusal in its own words. */
export const refused = (e: unknown) =>
  notice(e instanceof Error ? e.message : String(e), e instanceof Cancelled ? 'info' : 'refused')

/** Asks for a name; resolves when it has been given, or not. */
onNameless(() => new Promise((named) => set((s) => (s.naming?.(false), { naming: named }))))

let restarts = 0

function makeEngine(): Engine {
  const e = new Engine()
  e.onTimeline = (timeline) => set({ timeline })
  e.onTrouble = (text) => notice(text, 'refused')
  e.onWaiting = (waiting) => set({ waiting })
  e.onTransport = (state, trip) => {
    setView({ playing: state !== STATE.stopped })
    set({ trip })
  }
  e.onOutput = (output) => set({ output })
  e.onBroken = (broken) => set({ broken })
  e.onSoundings = (soundings) => set({ soundings })
  e.onCosts = (list, memory) => {
    const costs = Object.fromEntries(list.map((c) => [c.stage, c.nanos]))
    set(list.length ? { costs, memory } : { memory })
  }
  e.onStopped = () => {
    if (engine !== e) return
    const { playing } = view()
    const at = e.heard()?.song ?? 0
    const watched = e.watched
    e.close()
    setView({ playing: false })
    set({ waiting: false }) // what it waited for, it can no longer tell
    const project = now().project
    if (!project || ++restarts > 5) {
      notice('The sound engine has stopped and does not start again. Reload the page.', 'refused')
      return
    }
    const next = (engine = makeEngine())
    void next.document(project, true).then(() => {
      hearAsBefore()
      next.locate(at)
      next.watch(watched)
      if (playing) next.play(project.sampleRate).catch(refused)
    })
    notice('The sound engine had stopped and was started again.', 'refused')
  }
  ;(globalThis as { shoalEngine?: Engine }).shoalEngine = e
  return e
}

/** Tells a new engine what this window hears: it belongs to no document. */
function hearAsBefore() {
  const { solo, dry, share, mono, listening, depth, trials, matches, matching } = view()
  const { loop, looping, stopsAtEnd } = view()
  engine?.hear({ solo, dry, share, mono })
  engine?.loop(looping && loop ? loop.from : 0, looping && loop ? loop.to : 0)
  engine?.atEnd(stopsAtEnd)
  if (listening) engine?.listen(listening)
  engine?.rms(depth === 'rms')
  for (const [row, id] of Object.entries(trials))
    engine?.trial(row, id === row ? '' : id, matching ? (matches[row] ?? {}) : {})
}

export async function open(id: string) {
  close()
  openId = id
  engine = makeEngine()
  const [opened, effects, strip, me, prints] = await Promise.all([
    answer(api.GET('/api/projects/{id}', { params: { path: { id } } })),
    answer(api.GET('/api/effects')),
    answer(api.GET('/api/params')),
    answer(api.GET('/api/me')),
    answer(api.GET('/api/projects/{id}/prints', { params: { path: { id } } })),
  ])
  if (openId !== id) return
  set({
    ...empty,
    project: opened.project,
    revision: opened.revision,
    shape: opened.revision,
    effects,
    strip,
    me: me.id ? me : null,
    prints,
  })
  void engine.document(opened.project, true).then(hearAsBefore)
  connect(id)
}

export function close() {
  openId = ''
  socket?.close()
  socket = null
  engine?.close()
  engine = null
  set(empty, true)
}

function connect(id: string) {
  const s = new WebSocket(
    `${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/projects/${id}/live`,
  )
  socket = s
  s.onopen = () => {
    set({ connected: true })
    void catchUp()
  }
  s.onmessage = (e) => hear(JSON.parse(e.data as string) as Message)
  s.onclose = () => {
    if (socket !== s) return
    set({ connected: false })
    setTimeout(() => openId === id && socket === s && connect(id), 800)
  }
}

/** Connects anew, as after giving a name. */
export function reconnect() {
  const old = socket
  if (openId) connect(openId)
  old?.close()
}

function hear(m: Message) {
  if (m.change) {
    if (m.change.revision === now().revision + 1) take([m.change])
    else if (m.change.revision > now().revision) void catchUp()
  }
  if (m.presence) set({ people: m.presence })
  if (m.print) {
    const p = m.print
    set((s) => ({
      prints: [p, ...s.prints.filter((x) => x.id !== p.id)],
      news: s.news.includes(p.id) ? s.news : [...s.news, p.id],
    }))
  }
  if (m.import) set({ importing: m.import })
  if (m.work) {
    const { id, progress } = m.work
    set((s) => ({ works: s.works.map((w) => (w.id === id ? { ...w, progress } : w)) }))
  }
}

/** Applies revisions in order and passes the newest to the engine. */
function take(changes: ChangeMessage[]) {
  let { project, revision, shape, lastChange } = now()
  if (!project) return
  for (const c of changes) {
    if (c.revision !== revision + 1) continue
    const before: Project = project
    project = patched(before, c.patch as unknown as Operation[])
    revision = c.revision
    if (!sameButLines(before, project)) shape = revision
    lastChange = c
  }
  void engine?.document(project, false) // first: what is drawn is asked of it
  set({ project, revision, shape, lastChange })
  clearTimeout(comparing)
  comparing = setTimeout(() => void compare(), REST)
}

/** How long no revision may come until the document is compared with the server's, in ms. */
const REST = 500
let comparing: ReturnType<typeof setTimeout>

/** Compares the document with the server's by its hash; where it is another, it is taken anew. */
async function compare() {
  const { project, revision, lastChange } = now()
  if (!project || lastChange?.revision !== revision || !lastChange.hash) return
  const hash = await hashOf(project)
  if (!hash || hash === lastChange.hash || now().project !== project) return
  console.warn(`The document differs from the server's at revision ${revision}: it is taken anew.`)
  await takeAnew(revision)
}

/** Takes the whole document from the server. */
async function takeAnew(differs?: number) {
  const params = { path: { id: openId }, query: { differs } }
  const o = await answer(api.GET('/api/projects/{id}', { params }))
  void engine?.document(o.project, false)
  set({ project: o.project, revision: o.revision, shape: o.revision, lastChange: null })
}

async function catchUp() {
  catchingUp ??= (async () => {
    try {
      const m = await answer(
        api.GET('/api/projects/{id}/changes', {
          params: { path: { id: openId }, query: { since: now().revision } },
        }),
      )
      if (m.gap) await takeAnew()
      else take(m.changes)
    } catch {
      // the connection will come back and ask again
    } finally {
      catchingUp = null
    }
  })()
  await catchingUp
}

/** Asks for changes. They come back as a revision, here and in every other window. */
export const change = (label: string, ...changes: Change[]) => changeIn(gesture(), label, ...changes)

/** The same as a part of a gesture that began earlier. */
async function changeIn(gesture: string, label: string, ...changes: Change[]): Promise<boolean> {
  try {
    const r = await answer(
      api.POST('/api/projects/{id}/changes', {
        params: { path: { id: openId } },
        body: { label, changes, gesture },
      }),
    )
    await reached(r.revision)
    return true
  } catch (e) {
    refused(e)
    return false
  }
}

/** How long a revision may take over the live connection before it is asked for, in ms. */
const PATIENCE = 200

/** Resolves when a revision has arrived, asking for it if the live connection is slow. */
async function reached(revision: number) {
  if (now().revision >= revision) return
  await new Promise<void>((arrived) => {
    const late = setTimeout(done, PATIENCE)
    const stop = useSession.subscribe((s) => s.revision >= revision && done())
    function done() {
      clearTimeout(late)
      stop()
      arrived()
    }
  })
  if (now().revision < revision) await catchUp()
}

export async function takeBack(which: 'undo' | 'redo') {
  try {
    const r = await answer(api.POST(`/api/projects/{id}/${which}`, { params: { path: { id: openId } } }))
    for (const p of r.passed ?? []) notice(p, 'refused')
    notice(`${which === 'undo' ? 'Undone' : 'Redone'}: ${r.label}`)
    await reached(r.revision)
  } catch (e) {
    refused(e)
  }
}

const settle = new Map<string, ReturnType<typeof setTimeout>>()

/** Moves a parameter: the engine hears it at once, the server when the hand rests. */
export function move(owner: string, name: string, value: number, label: string, rest = false) {
  const key = `${owner} ${name}`
  const within = gesture()
  set((s) => ({ moving: { ...s.moving, [key]: value } }))
  if (takesDown(owner, name)) return takeDown(owner, name, value, label)
  const line = now().project?.lines.find((l) => l.owner === owner && l.name === name)
  engine?.move(owner, name, value)
  clearTimeout(settle.get(key))
  settle.set(
    key,
    setTimeout(
      async () => {
        if (line?.points.length) {
          // by hand it would not stick: its line moves it
          const from = Math.round(engine?.heard()?.song ?? 0)
          await changeIn(within, `Put a point on ${label}`, {
            type: 'line.put',
            do: { owner, name, from, to: from, value },
          })
          notice(`${label} follows its line: a point is at the playhead now.`)
        } else await changeIn(within, label, { type: 'param.set', do: { owner, name, value } })
        if (now().moving[key] === value) {
          set((s) => ({ moving: Object.fromEntries(Object.entries(s.moving).filter(([k]) => k !== key)) }))
        }
      },
      rest ? 0 : 250,
    ),
  )
}

/** Every stage of a chain and of the paths in it. */
export function* stages(nodes: Node[]): Generator<Stage> {
  for (const n of nodes) {
    if (n.stage) yield n.stage
    for (const p of n.fork?.paths ?? []) yield* stages(p.chain.nodes)
  }
}

/** A channel's chain and its trials, each with the id that owns it. */
export function chainsOf(c: Channel): { owner: string; letter: string; chain: Chain }[] {
  return [
    { owner: c.id, letter: c.letter, chain: c.chain },
    ...c.trials.map((t) => ({ owner: t.id, letter: t.letter, chain: t.chain })),
  ]
}

/** The alternative of a channel's chain that this window shows and hears. */
export function shownChain(c: Channel, trials: Record<string, string>) {
  const all = chainsOf(c)
  return all.find((x) => x.owner === trials[c.id]) ?? all[0]!
}

export function findStage(project: Project, id: string): { stage: Stage; channel: Channel } | null {
  for (const channel of project.channels) {
    for (const { chain } of chainsOf(channel))
      for (const stage of stages(chain.nodes)) if (stage.id === id) return { stage, channel }
  }
  return null
}

export const effectOf = (s: Stage, effects: EffectInfo[]) =>
  effects.find((e) => e.id === s.effect && e.version === s.version)
export const stageName = (s: Stage, effects: EffectInfo[]) =>
  s.name || (effectOf(s, effects)?.name ?? s.effect)

/** Lets changes be heard without making them; none ends it. */
export async function tryChanges(changes: Change[]) {
  await engine?.try(changes)
  set((s) => ({ tried: s.tried + 1 }))
}
