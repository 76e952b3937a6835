import type { Heard, Message, Person, Presence, TrialHeard, Whereabouts } from '../api/types'
import { theEngine } from './sound'
import { theProject } from './store'
import { useView, type View, view } from './view'

/* Who else is in the project, where they are and what they hear; and what this window says of itself. */

/** When it came to be known what somebody hears, by this window's clock. */
const known = new WeakMap<Presence, number>()

/** How long ago it came to be known what somebody hears, in ms. */
export const heardAgo = (p: Presence) => performance.now() - (known.get(p) ?? performance.now())

/** Whether somebody is another than me. Whoever has given no name yet is not told from others who have not: this window is among
    them. */
export const isAnother = (p: Presence, me: Person | null) => p.person.id !== (me?.id ?? '')

/** The people that a message leaves: all, or those before with who came, moved and left. */
export function peopleAfter(before: Presence[], m: Message): Presence[] {
  for (const p of [...(m.presence ?? []), ...(m.came ?? [])]) known.set(p, performance.now())
  if (m.presence) return m.presence
  const came = m.came ?? []
  const gone = new Set([...(m.left ?? []), ...came.map((p) => p.window)])
  return [...before.filter((p) => !gone.has(p.window)), ...came]
}

/** Where a song is some milliseconds after somebody said what is heard, in frames. */
export function songAfter(h: Heard, ms: number, rate: number): number {
  if (!h.playing) return h.song
  const at = h.song + (ms * rate) / 1000
  return h.to > 0 && h.song < h.to && at >= h.to ? h.from + ((at - h.from) % (h.to - h.from)) : at
}

/** How often a window says where it is at most, and looks whether it still plays where others take it to be, in ms. */
const EVERY = 200
/** By how much it may be elsewhere, in ms. */
const OFF = 120

/** How many alternatives are said at most: what a window says of itself has its limit. */
const MOST = 100

/** The rows of which another alternative than their own chain is heard; none are not said. */
function trialsHeard(v: View): TrialHeard[] | undefined {
  const list = Object.entries(v.trials).flatMap(([row, trial]) =>
    trial && trial !== row ? [{ row, trial, match: v.matching ? (v.matches[row]?.[trial] ?? 0) : 0 }] : [],
  )
  return list.length ? list.slice(0, MOST) : undefined
}

/** What is heard in this window, if there is a song to be heard. */
export function heardHere(v: View = view()): Heard | undefined {
  const song = theEngine()?.heard()?.song
  if (song === undefined) return undefined
  const loop = v.looping ? v.loop : null
  return {
    playing: v.playing,
    song: Math.max(0, Math.round(song)),
    from: loop?.from ?? 0,
    to: loop?.to ?? 0,
    solo: v.solo,
    dry: v.dry,
    share: v.share,
    mono: v.mono,
    listening: v.listening ?? undefined,
    trials: trialsHeard(v),
  }
}

/** Says where this window is and what is heard in it, now and whenever that changes; ends what it gives back. */
export function sayWhere(send: (text: string) => void): () => void {
  let said: Whereabouts = { at: '', stage: '' } // as others know who has just come
  let at = 0
  let text = JSON.stringify(said)
  const say = () => {
    const { channel, stage } = view()
    const now: Whereabouts = { at: channel, stage, heard: heardHere() }
    const still = JSON.stringify({ ...now, heard: now.heard && { ...now.heard, song: 0 } })
    if (still === text && !strayed(said.heard, now.heard, performance.now() - at)) return
    said = now
    at = performance.now()
    text = still
    send(JSON.stringify(now))
  }
  say()
  let waiting: ReturnType<typeof setTimeout> | undefined
  const end = useView.subscribe(() => {
    waiting ??= setTimeout(() => {
      waiting = undefined
      say()
    }, EVERY)
  })
  const looking = setInterval(say, 2 * EVERY)
  return () => {
    clearTimeout(waiting)
    clearInterval(looking)
    end()
  }
}

/** Whether the song is elsewhere than what was said of it would let others think, some milliseconds later. */
export function strayed(said: Heard | undefined, now: Heard | undefined, ms: number): boolean {
  if (!said || !now) return said !== now
  const rate = theProject()?.sampleRate ?? 48000
  return Math.abs(songAfter(said, ms, rate) - now.song) > (OFF * rate) / 1000
}
