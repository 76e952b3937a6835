import { WebSocket as LastingSocket } from 'partysocket'
import type { Operation } from 'fast-json-patch'
import { answer, api } from '../api/client'
import type { ChangeMessage, Message, Project, Worked } from '../api/types'
import { hashOf } from '../document/hash'
import { patched, sameButLines } from '../document/patch'
import { endEngine, hearAsBefore, startEngine, tellWorked, theEngine } from './sound'
import { empty, session, setSession } from './store'
import { mark, touched } from './theirs'
import { peopleAfter, sayWhere } from './whereabouts'

/* The live connection of the project that is open: revisions come over it, in order, and what was missed is asked for. */

let socket: LastingSocket | null = null

/** Ends what says where this window is. */
let noLongerSaid: () => void = () => undefined

let openId = ''
let catchingUp: Promise<void> | null = null

export async function open(id: string) {
  close()
  openId = id
  const engine = startEngine()
  const [opened, effects, strip, me, prints, inputs] = await Promise.all([
    answer(api.GET('/api/projects/{id}', { params: { path: { id } } })),
    answer(api.GET('/api/effects')),
    answer(api.GET('/api/params')),
    answer(api.GET('/api/me')),
    answer(api.GET('/api/projects/{id}/prints', { params: { path: { id } } })),
    answer(api.GET('/api/inputs')),
  ])
  if (openId !== id) return
  setSession({
    ...empty,
    project: opened.project,
    revision: opened.revision,
    role: opened.role,
    exports: opened.exports,
    shape: opened.revision,
    effects,
    strip,
    me: me.id ? me : null,
    prints,
    inputs,
  })
  engine.document(opened.project, true)
  hearAsBefore()
  engine.prepare(opened.project.sampleRate)
  connect(id)
}

export function close() {
  openId = ''
  noLongerSaid()
  socket?.close()
  socket = null
  endEngine()
  setSession(empty, true)
}

function connect(id: string) {
  const scheme = location.protocol === 'https:' ? 'wss' : 'ws'
  const s = new LastingSocket(`${scheme}://${location.host}/api/projects/${id}/live`, [], {
    minReconnectionDelay: 500,
    maxReconnectionDelay: 4000,
  })
  socket = s
  s.onopen = () => {
    setSession({ connected: true })
    noLongerSaid()
    noLongerSaid = sayWhere((text) => s.send(text))
    void catchUp()
    void lookAtWorks()
  }
  s.onmessage = (e) => hear(JSON.parse(e.data as string) as Message)
  s.onclose = () => socket === s && setSession({ connected: false })
}

/** Connects anew, as after giving a name. */
export const reconnect = () => socket?.reconnect()

function hear(m: Message) {
  if (m.change) {
    if (m.change.revision === session().revision + 1) take([m.change])
    else if (m.change.revision > session().revision) void catchUp()
  }
  if (m.presence || m.came || m.left) setSession((s) => ({ people: peopleAfter(s.people, m) }))
  if (m.crew) void learnRole()
  if (m.gone) leave(m.gone)
  if (m.print) {
    const p = m.print
    setSession((s) => ({
      prints: [p, ...s.prints.filter((x) => x.id !== p.id)],
      news: s.news.includes(p.id) ? s.news : [...s.news, p.id],
    }))
  }
  if (m.worked) takeWorked(m.worked)
  if (m.import) setSession({ importing: m.import })
  if (m.work) {
    const { id, progress } = m.work
    setSession((s) => ({ works: s.works.map((w) => (w.id === id ? { ...w, progress } : w)) }))
  }
}

/** Asks what I am here now: somebody has changed who is in the project. */
async function learnRole() {
  const id = openId
  const c = await answer(api.GET('/api/projects/{id}/crew', { params: { path: { id } } })).catch(() => null)
  if (c && id === openId) setSession((s) => ({ role: c.role, exports: c.exports, crew: s.crew + 1 }))
}

/** I may no longer be here: what is shown and heard ends. */
function leave(why: string) {
  socket?.close()
  socket = null
  endEngine()
  setSession({ gone: why, connected: false })
}

function takeWorked(worked: Worked[]) {
  const before = session().worked
  setSession({ worked })
  if (worked.some((w) => w.state === 'done' && !before.some((b) => b.key === w.key && b.state === 'done')))
    tellWorked()
}

/** Asks what is worked out for the clips of the project: whatever is missing is then begun. */
async function lookAtWorks() {
  const id = openId
  const list = await answer(api.GET('/api/projects/{id}/works', { params: { path: { id } } })).catch(
    () => null,
  )
  if (list && id === openId) takeWorked(list)
}

/** Applies revisions in order and passes the newest to the engine. */
function take(changes: ChangeMessage[]) {
  let { project, revision, shape, lastChange } = session()
  if (!project) return
  for (const c of changes) {
    if (c.revision !== revision + 1) continue
    const before: Project = project
    const patch = c.patch as unknown as Operation[]
    if (c.author.id !== session().me?.id) mark(c.author.name, touched(before, patch))
    project = patched(before, patch)
    revision = c.revision
    if (!sameButLines(before, project)) shape = revision
    lastChange = c
  }
  if (revision === session().revision) return // nothing of it was new
  if (!session().instead) theEngine()?.document(project, false) // first: what is drawn is asked of it
  setSession({ project, revision, shape, lastChange })
  clearTimeout(comparing)
  comparing = setTimeout(() => void compare(), REST)
}

/** How long no revision may come until the document is compared with the server's, in ms. */
const REST = 500
let comparing: ReturnType<typeof setTimeout>

/** Compares the document with the server's by its hash; where it is another, it is taken anew. */
async function compare() {
  const { project, revision, lastChange } = session()
  if (!project || lastChange?.revision !== revision || !lastChange.hash) return
  const hash = await hashOf(project)
  if (!hash || hash === lastChange.hash || session().project !== project) return
  console.warn(`The document differs from the server's at revision ${revision}: it is taken anew.`)
  await takeAnew(revision)
}

/** Takes the whole document from the server. */
async function takeAnew(differs?: number) {
  const params = { path: { id: openId }, query: { differs } }
  const o = await answer(api.GET('/api/projects/{id}', { params }))
  if (!session().instead) theEngine()?.document(o.project, false)
  setSession({ project: o.project, revision: o.revision, shape: o.revision, lastChange: null })
}

export async function catchUp() {
  catchingUp ??= (async () => {
    try {
      const m = await answer(
        api.GET('/api/projects/{id}/changes', {
          params: { path: { id: openId }, query: { since: session().revision } },
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
