import { replaceEqualDeep } from '@tanstack/react-query'
import { Engine } from '../engine/engine'
import { STATE } from '../engine/ring'
import { notice, refused, session, setSession } from './store'
import { setView, view } from './view'

/* The window's engine: made, told what this window hears, and made anew when it ends. */

let engine: Engine | null = null

export const theEngine = () => engine

/** Begins with a new engine, for a project that is opened. */
export const startEngine = () => (engine = makeEngine())

export function endEngine() {
  engine?.close()
  engine = null
}

let restarts = 0

function makeEngine(): Engine {
  const e = new Engine()
  // what of it is as before stays the same object: a change draws anew what it touches, and not every row
  e.onTimeline = (timeline) => setSession((s) => ({ timeline: replaceEqualDeep(s.timeline, timeline) }))
  e.onTrouble = (text) => notice(text, 'refused')
  e.onWaiting = (waiting) => setSession({ waiting })
  e.onTransport = (state, trip) => {
    setView({ playing: state !== STATE.stopped })
    setSession({ trip })
  }
  e.onArriving = (arriving) => setSession({ arriving })
  e.onCounting = (counting) => setSession({ counting })
  e.onUnsafe = (seconds, trouble) => setSession({ unsafe: { seconds, trouble } })
  e.onTaking = takes
  e.onOutput = (output) => setSession({ output })
  e.onBroken = (broken) => setSession({ broken })
  e.onSoundings = (soundings) => setSession({ soundings })
  e.onCosts = (list, memory) => {
    const costs = Object.fromEntries(list.map((c) => [c.stage, c.nanos]))
    if (!list.length) return setSession({ memory })
    setSession((s) => ({ costs, memory, spent: { ...s.spent, ...costs } }))
  }
  e.onStopped = () => {
    if (engine !== e) return
    const playing = e.wanted
    const at = e.stands() // and not what is heard, which may be from before a jump
    const watched = e.watched
    e.close()
    setView({ playing: false })
    setSession({ waiting: false }) // what it waited for, it can no longer tell
    const project = session().project
    if (!project || ++restarts > 5) {
      notice('The sound engine has stopped and does not start again. Reload the page.', 'refused')
      return
    }
    const next = startEngine()
    next.document(project, true)
    hearAsBefore()
    next.locate(at)
    next.watch(watched)
    if (playing) next.play(project.sampleRate).catch(refused)
    notice('The sound engine had stopped and was started again.', 'refused')
  }
  ;(globalThis as { shoalEngine?: Engine }).shoalEngine = e
  return e
}

/** Tells the engine what has been worked out: it fetches and plays it. */
export function tellWorked() {
  const keys = session().worked.filter((w) => w.state === 'done')
  if (keys.length) engine?.worked(keys.map((w) => w.key))
}

/** How loud the click is, in dB: below what is played, and above what is quiet. */
export const CLICK = -18

/** Tells the engine how far ahead of the ears it works. */
export const tellRing = () =>
  engine?.buffer(Math.round((view().ring / 1000) * (session().project?.sampleRate ?? 48000)))

/** Tells the engine which rows are ready to be recorded. */
export const tellReady = () =>
  engine?.makeReady(
    Object.entries(session().ready).map(([row, hear]) => ({
      row,
      hear,
      returns: session().returns && isOwn(row),
    })),
  )

const isOwn = (row: string) => session().project?.channels.find((c) => c.id === row)?.records === 'own'

/** Takes down how loud it is what is recorded. */
const takes: Engine['onTaking'] = (row, overview, gone) =>
  setSession(({ recording: r, timeline }) => {
    if (!r) return {}
    const of = r.overviews[row] ?? []
    const overviews = overview.levels.length ? { ...r.overviews, [row]: [...of, overview] } : r.overviews
    const end = overview.song + (overview.step * overview.levels.length) / 2
    const beyond = timeline && end > timeline.shown
    return {
      // the board shows more of the song while something is recorded behind its end
      timeline: beyond ? { ...timeline, shown: end * 1.5 } : timeline,
      recording: { ...r, overviews, gone: gone && !r.gone.includes(row) ? [...r.gone, row] : r.gone },
    }
  })

/** Tells a new engine what this window hears: it belongs to no document. */
export function hearAsBefore() {
  const { solo, dry, share, mono, listening, depth, trials, matches, matching } = view()
  const { loop, looping, stopsAtEnd, click } = view()
  engine?.click(click, CLICK)
  tellRing()
  tellReady()
  engine?.hear({ solo, dry, share, mono })
  engine?.loop(looping && loop ? loop.from : 0, looping && loop ? loop.to : 0)
  engine?.atEnd(stopsAtEnd)
  if (listening) engine?.listen(listening)
  engine?.rms(depth === 'rms')
  tellWorked()
  for (const [row, id] of Object.entries(trials))
    engine?.trial(row, id === row ? '' : id, matching ? (matches[row] ?? {}) : {})
}
