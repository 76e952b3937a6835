import type { Heard, Presence, TrialHeard } from '../api/types'
import { hear, listenToAll, listenAt } from './listening'
import { theEngine } from './sound'
import { notice, session, setSession, theProject, useSession } from './store'
import { onOwnGesture, setLoop } from './transport'
import { setView, useView, view } from './view'
import { heardAgo, songAfter } from './whereabouts'

/* Hearing along: this window plays from its own engine what somebody else hears in theirs, until a gesture of its own. */

/** What is done here is what somebody else did, and no gesture of one's own. */
let theirs = false

/** Hears along with somebody's window. */
export function hearAlong(p: Presence) {
  setSession({ along: { window: p.window, person: p.person.id, name: p.person.name } })
  follow(p)
}

/** Hears on one's own again, from where the song is. */
export function leaveAlong(why = '') {
  const { along } = session()
  if (!along) return
  setSession({ along: null })
  notice(why || `You hear on your own again: ${along.name} goes on.`)
}

/** Hears what is heard now in the window that is heard along with; or in another of the same person, or nobody's. */
function followAll(people: Presence[]) {
  const { along } = session()
  if (!along) return
  const p = people.find((x) => x.window === along.window) ?? people.find((x) => x.person.id === along.person)
  if (!p) return leaveAlong(`${along.name} has gone: you hear on your own again.`)
  if (p.window !== along.window) setSession({ along: { ...along, window: p.window } })
  if (p !== followed) follow(p)
}

let followed: Presence | null = null

function follow(p: Presence) {
  followed = p
  if (!p.heard) return
  theirs = true
  try {
    same(p, p.heard)
  } finally {
    theirs = false
  }
}

function same(p: Presence, h: Heard) {
  const v = view()
  if (h.to !== (v.looping && v.loop ? v.loop.to : 0) || (h.to > 0 && h.from !== v.loop?.from))
    setLoop(h.to > 0 ? { from: h.from, to: h.to, name: 'along' } : v.loop, h.to > 0)
  const { solo, dry, share, mono } = h
  if (JSON.stringify([solo, dry, share, mono]) !== JSON.stringify([v.solo, v.dry, v.share, v.mono]))
    hear({ solo, dry, share, mono })
  if (JSON.stringify(h.listening ?? null) !== JSON.stringify(v.listening)) {
    if (h.listening) listenAt(h.listening)
    else listenToAll()
  }
  hearTrials(h.trials ?? [])
  void place(p, h)
}

/** Hears the alternatives of chains that are heard there, as loud as there; elsewhere the chains themselves. */
function hearTrials(list: TrialHeard[]) {
  const now = view().trials
  const next = Object.fromEntries(list.map((x) => [x.row, x.trial]))
  const rows = new Set([...Object.keys(now), ...Object.keys(next)])
  const other = [...rows].filter((row) => (now[row] ?? '') !== (next[row] ?? ''))
  if (!other.length) return
  setView({ trials: next })
  for (const row of other) {
    const x = list.find((t) => t.row === row)
    theEngine()?.trial(row, x?.trial ?? '', x ? { [x.trial]: x.match } : {})
  }
}

/** How far two windows may be apart until the song is set anew here, in seconds. */
const APART = 0.25

/** Brings the song to where it is there: it plays or stands still. */
async function place(p: Presence, h: Heard) {
  const engine = theEngine()
  const rate = theProject()?.sampleRate
  if (!engine || !rate) return
  const here = engine.heard()?.song
  const there = () => Math.round(songAfter(h, heardAgo(p), rate))
  if (!h.playing && view().playing) engine.stop()
  if (here === undefined || Math.abs(here - there()) > APART * rate || (!h.playing && here !== h.song))
    engine.locate(there(), 0)
  if (h.playing && !view().playing) await engine.play(rate).catch(() => undefined)
}

onOwnGesture(() => !theirs && leaveAlong())

const own = ['loop', 'looping', 'solo', 'dry', 'share', 'mono', 'listening', 'trials'] as const
useView.subscribe((v, before) => {
  if (!theirs && session().along && own.some((k) => v[k] !== before[k])) leaveAlong()
})

useSession.subscribe((s, before) => s.people !== before.people && followAll(s.people))
