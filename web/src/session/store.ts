import { create } from 'zustand'
import { Cancelled, onNameless, Refused } from '../api/client'
import type {
  Arrival,
  ChangeMessage,
  EffectInfo,
  InputKind,
  Person,
  Presence,
  PrintStatus,
  Project,
  Role,
  Sounding,
  StripParams,
  Timeline,
  Trip,
  Worked,
} from '../api/types'
import type { Overview } from '../engine/recorder'
import type { Side } from '../engine/ring'
import type { Work } from './works'

/* What one window knows. */

export type Notice = {
  id: number
  tone: 'info' | 'refused'
  text: string
  action?: { text: string; run: () => void }
}

/** What this window records just now. */
export type Recording = {
  id: string
  rows: string[]
  /** How loud what has come so far is, by row. */
  overviews: Record<string, Overview[]>
  /** Rows whose input has gone. */
  gone: string[]
  /** It has ended, and lands. */
  ending: boolean
}

/** What one window knows of the project it has open. */
export type Session = {
  project: Project | null
  revision: number
  /** The newest revision in which something else has changed than points of lines. */
  shape: number
  connected: boolean
  /** The server's disk was full when something was last to be changed. */
  full: boolean
  people: Presence[]
  me: Person | null
  /** What I am in this project, and whether its listeners may export. */
  role: Role
  exports: boolean
  /** Counts what has changed of who is in the project. */
  crew: number
  /** How much was said about rows and what is on them and is not settled, by id, and whether it waits for me. */
  said: Record<string, { open: number; waits: boolean }>
  /** The version that is heard in place of what the project is now, and by how much it is turned up. */
  instead: { id: string; name: string; gain: number } | null
  /** Whose window is heard along with. */
  along: { window: string; person: string; name: string } | null
  /** Why this window may no longer be here; empty: it may. */
  gone: string
  effects: EffectInfo[]
  /** Parameters that rows, sends and stages have besides their effects'. */
  strip: StripParams | null
  timeline: Timeline | null
  prints: PrintStatus[]
  importing: { name: string; progress: number } | null
  /** What this window waits for. */
  works: Work[]
  /** What Go works out for clips, and how far it is. */
  worked: Worked[]
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
  /** The same of all that has ever run here, as it was last measured. */
  spent: Record<string, number>
  /** What the sound engine holds in memory, in bytes. */
  memory: number
  /** Values under a hand in this window, ahead of the document, by "owner name". */
  moving: Record<string, number>
  /** What somebody else has just moved, by "owner name": who it was; and what was refused a moment ago. */
  theirs: Record<string, string>
  refusals: string[]
  /** What Go noticed, the weightiest first. */
  soundings: Sounding[]
  /** Rows that are ready to be recorded in this window, with how loud they are heard meanwhile, in dB. */
  ready: Record<string, number>
  recording: Recording | null
  /** How loud what arrives there is, in dB. */
  arriving: Record<string, Arrival>
  /** Beats that are still counted before the song begins. */
  counting: number
  /** Seconds of what was recorded that are not safe yet, and why. */
  unsafe: { seconds: number; trouble: string }
  /** The inputs that the browser knows, which of them is open, and what rows take of it. */
  devices: { id: string; name: string }[]
  device: string
  /** The own input is heard directly, without any chain; and of its rows then only what they send, or all of them. */
  direct: boolean
  returns: boolean
  /** How loud one hears oneself, in dB. */
  hearLevel: number
  sides: Record<string, Side>
  /** The stand-ins from which can be recorded. */
  inputs: InputKind[]
  /** Parameters whose lines are being taken down, by "owner name". */
  takingDown: string[]
}

export const empty: Session = {
  project: null,
  revision: 0,
  shape: 0,
  connected: false,
  full: false,
  people: [],
  me: null,
  role: 'owner',
  exports: true,
  crew: 0,
  said: {},
  instead: null,
  along: null,
  gone: '',
  effects: [],
  strip: null,
  timeline: null,
  prints: [],
  importing: null,
  works: [],
  worked: [],
  lastChange: null,
  notices: [],
  waiting: false,
  trip: null,
  output: true,
  news: [],
  naming: null,
  broken: [],
  costs: {},
  spent: {},
  memory: 0,
  soundings: [],
  tried: 0,
  takingDown: [],
  moving: {},
  theirs: {},
  refusals: [],
  ready: {},
  recording: null,
  arriving: {},
  counting: 0,
  unsafe: { seconds: 0, trouble: '' },
  devices: [],
  device: '',
  direct: false,
  returns: false,
  hearLevel: 0,
  sides: {},
  inputs: [],
}

export const useSession = create<Session>(() => empty)

export const setSession = useSession.setState

export const session = useSession.getState

export const theProject = () => useSession.getState().project

export const projectId = () => theProject()?.id ?? ''

let noticeId = 0

export function notice(text: string, tone: Notice['tone'] = 'info', action?: Notice['action']) {
  const id = ++noticeId
  setSession((s) => ({
    notices: [...s.notices.filter((n) => n.text !== text).slice(-3), { id, tone, text, action }],
  }))
  setTimeout(() => dismiss(id), tone === 'refused' || action ? 9000 : 5000)
}

export const dismiss = (id: number) => setSession((s) => ({ notices: s.notices.filter((n) => n.id !== id) }))

/** No longer says that a print has ended. */
export const putAwayPrint = (id: string) => setSession((s) => ({ news: s.news.filter((x) => x !== id) }))

/** Shows a refusal in its own words. */
export function refused(e: unknown) {
  if (e instanceof Refused && e.status === FULL) setSession({ full: true })
  notice(e instanceof Error ? e.message : String(e), e instanceof Cancelled ? 'info' : 'refused')
}

/** The status of an answer where there is no room (RFC 4918, section 11.5). */
const FULL = 507

/** Asks for a name; resolves when it has been given, or not. */
onNameless(() => new Promise((named) => setSession((s) => (s.naming?.(false), { naming: named }))))
