import { create } from 'zustand'
import { persist } from 'zustand/middleware'
import { useShallow } from 'zustand/react/shallow'
import type { LineView, Param, PrintPoint } from '../api/types'
import type { Listening } from '../engine/ring'

export type Tide = 'low' | 'mid' | 'high'
export type Range = { from: number; to: number; name: string }
/** A stretch of the song on some rows. */
export type Piece = { from: number; to: number; rows: string[] }
export type Dialog =
  | { kind: 'effects'; owner: string; index: number; replace?: string; clips?: string[] }
  | { kind: 'print'; channel: string; target: 'track' | 'file'; point?: PrintPoint }
  | { kind: 'stems' }
  | { kind: 'keys' }
  | { kind: 'commands' }
  | { kind: 'logbook' }
  | { kind: 'crew' }
  | { kind: 'versions' }
  | { kind: 'remarks'; about?: { at: string; param?: string; from: number; to: number }; row?: string }
  | { kind: 'presets'; of: 'stage' | 'chain' | 'fork' | 'channel'; target: string }
  | { kind: 'compare'; channel: string }
  | { kind: 'costs' }
  | { kind: 'tempo' }
  | { kind: 'along'; run: (along: boolean) => void }
  | { kind: 'soundings'; row?: string }
  | { kind: 'send'; rows: string[] }
  | { kind: 'lines'; row: string }
  | { kind: 'course'; id: string }
  | { kind: 'moves'; owner: string; param: Param; label: string }
  | { kind: 'value'; v: LineView; stretch: Stretch; points: boolean; begun?: string }
  | { kind: 'thin'; v: LineView; stretch: Stretch }
  | { kind: 'passage'; from: number; to: number; name: string; rows: string[] }
  | { kind: 'trace'; from: string; to: string }
  | { kind: 'rows' }
  | { kind: 'lineage'; clip: string }
  | { kind: 'takes'; row: string; from: number; to: number }
  | { kind: 'wayIn'; row: string }
  | { kind: 'shelf'; clips?: string[] }
  | { kind: 'slices'; clips: string[] }
  | { kind: 'repeats'; clip: string }
  | null

export type Stretch = {
  owner: string
  name: string
  from: number
  to: number
  ticks: number[]
  more?: Chosen[]
  /** It was drawn along the line: what is typed is held over it, and not the value of the points in it. */
  drawn?: boolean
}

/** Points that are selected, of another line than the one that the hand is on. */
export type Chosen = { owner: string; name: string; ticks: number[] }

/** What belongs to this window alone: never to the document. */
export type View = {
  channel: string
  /** What is on the bench: a stage, a fork or a path of one, a send, or a passage. */
  stage: string
  tide: Tide
  rowHeight: number
  bench: boolean
  /** How high the bench is, how wide the heads of rows are, in pixels; how large all is drawn, in percent. */
  benchHeight: number
  headWidth: number
  size: number
  showHidden: boolean
  /** Frames per pixel; 0 fits the whole song. */
  zoom: number
  scroll: number
  loop: Range | null
  looping: boolean
  solo: string[]
  /** A row heard without its returns, or only its share of them. */
  dry: string
  share: string
  /** Both sides of the main output as their sum. */
  mono: boolean
  /** Rows selected together, the one on the bench among them; empty: only that one. */
  rows: string[]
  /** Clips that are selected, and a range that is drawn over rows. */
  clips: string[]
  piece: Piece | null
  /** Places at which clips would be cut, in song frames, by clip. */
  marks: Record<string, number[]>
  /** Rows that keep to a line, and those whose air is open; the others are as high as all. */
  airs: Record<string, 'line' | 'open'>
  /** Groups whose members are folded away. */
  folded: string[]
  /** Lines that are open under their rows, by row: addresses as "owner name". */
  lines: Record<string, string[]>
  /** What is selected of a line: a stretch in frames, and the points in it by their ticks. */
  stretch: Stretch | null
  /** How far the hand is pulling the points that are selected together, in pixels: all are seen to go. */
  pull: { dx: number; dy: number; copy: boolean } | null
  /** Ticks of the grid that points snap to; 0: none. */
  grid: number
  /** How long a line takes to be reached again after it was taken down, in milliseconds. */
  glide: number
  /** Whether sections take lines and passages along; null: not yet asked. */
  along: boolean | null
  /** Taking down goes on until stop, not only while the scale is held. */
  untilStop: boolean
  dialog: Dialog
  renaming: string
  /** Whether the song runs, or waits for its audio: as the engine says. */
  playing: boolean
  /** Whether the song stops where its last clip ends. */
  stopsAtEnd: boolean
  /** Whether the beats are heard; how many bars are counted before a recording begins; and whether what is recorded only
      comes among the takes of its place. */
  click: boolean
  /** The browser's input that this window records from, by its id; empty: the usual one. And what is taken off for its delay,
      in ms; less than 0: what the browser says. */
  inputDevice: string
  inputDelay: number
  countIn: number
  aside: boolean
  /** Whether each recording comes onto a new row; and how far ahead of the ears the engine works, in ms. */
  beside: boolean
  ring: number
  /** Stages selected together, the one on the bench among them; empty: only that one. */
  together: string[]
  /** Whether stages set together keep their differences. */
  keepDifferences: boolean
  /** A second stage on the bench. */
  pinned: string
  /** The stage or fork under the pointer, and the one that this window hears the mix without for as long as a key is held. */
  pointed: string
  without: string
  /** The place in a chain of which a menu is open, between two stages: behind a node, if there is one. */
  place: { owner: string; index: number; node: string } | null
  /** How many of the first minute's steps have been taken. */
  learnt: number
  /** What is listened to instead of the main output. */
  listening: Listening | null
  /** The trial that is heard, by channel. */
  trials: Record<string, string>
  /** Level matches of trials in dB, by channel and trial, and whether they are used. */
  matches: Record<string, Record<string, number>>
  matching: boolean
  /** A row whose trials are compared without saying which is which: their order. */
  blind: { channel: string; order: string[] } | null
  /** Whether depth figures are peaks or mean levels. */
  depth: 'peak' | 'rms'
  /** Day chart or night chart, or as the system has it. */
  theme: 'day' | 'night' | 'system'
  /** Effects that were inserted last, and those that were marked. */
  recent: string[]
  favourites: string[]
}

const begin: View = {
  channel: '',
  stage: '',
  tide: 'mid',
  rowHeight: 48,
  bench: true,
  benchHeight: 250,
  headWidth: 168,
  size: 100,
  showHidden: false,
  zoom: 0,
  scroll: 0,
  loop: null,
  looping: false,
  solo: [],
  dry: '',
  share: '',
  mono: false,
  rows: [],
  clips: [],
  piece: null,
  marks: {},
  airs: {},
  folded: [],
  lines: {},
  stretch: null,
  pull: null,
  grid: 240,
  glide: 200,
  untilStop: false,
  along: null,
  dialog: null,
  renaming: '',
  playing: false,
  stopsAtEnd: true,
  click: false,
  inputDevice: '',
  inputDelay: -1,
  countIn: 0,
  aside: false,
  beside: false,
  ring: 100,
  together: [],
  keepDifferences: true,
  pinned: '',
  pointed: '',
  without: '',
  place: null,
  learnt: 0,
  listening: null,
  trials: {},
  matches: {},
  matching: true,
  blind: null,
  depth: 'peak',
  theme: 'system',
  recent: [],
  favourites: [],
}

/** What of it this browser remembers. */
const remembered = [
  'tide',
  'rowHeight',
  'bench',
  'benchHeight',
  'headWidth',
  'size',
  'depth',
  'grid',
  'glide',
  'untilStop',
  'along',
  'stopsAtEnd',
  'click',
  'ring',
  'inputDevice',
  'inputDelay',
  'countIn',
  'theme',
  'learnt',
  'recent',
  'favourites',
] as const

export const useView = create<View>()(
  persist(() => begin, {
    name: 'shoal',
    version: 2,
    // rows were higher before
    migrate: (kept) => ({ ...(kept as View), rowHeight: begin.rowHeight }),
    partialize: (v) => Object.fromEntries(remembered.map((k) => [k, v[k]])) as Partial<View> as View,
    merge: (kept, now) => ({ ...now, ...sound(kept) }),
  }),
)

/** What is remembered may be of another time, or another's: what is not of its kind counts for nothing. */
function sound(kept: unknown): Partial<View> {
  const k = (kept ?? {}) as Record<string, unknown>
  const like = (a: unknown, b: unknown) =>
    Array.isArray(b)
      ? Array.isArray(a) && a.every((x) => typeof x === 'string')
      : b === null
        ? a === null || typeof a === 'boolean'
        : typeof a === typeof b
  return Object.fromEntries(remembered.filter((x) => like(k[x], begin[x])).map((x) => [x, k[x]]))
}

/** Some of it: who asks is drawn anew when one of these changes, and by nothing else. */
export const useViewOf = <K extends keyof View>(...keys: K[]) =>
  useView(useShallow((v) => Object.fromEntries(keys.map((k) => [k, v[k]])) as Pick<View, K>))

export const view = useView.getState
export const setView = useView.setState

/** A project that is opened is seen as for the first time, but for what this browser remembers. */
export const beginAnew = () =>
  setView(Object.fromEntries(Object.entries(begin).filter(([k]) => !remembered.some((r) => r === k))))

/** What one press of an arrow key moves something by, in ticks: a step of the grid, or a sixteenth. */
export const gridStep = () => useView.getState().grid || 240
