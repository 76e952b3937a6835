import type { Arrival, Trip } from '../api/types'
import type { Overview } from './recorder'

/** The memory that worker, worklet and page share. */
export const HEAD = { write: 0, read: 1, epoch: 2, underruns: 3, running: 4, now: 5, before: 6 } as const
export const RING_FRAMES = 32768

/** Levels travel in slots, each stamped with the place in the ring that it belongs to. */
export const SLOTS = 64
export const SLOT_VALUES = 8192
export const STAMP = {
  write: 0,
  song: 1,
  state: 2,
  layout: 3,
  count: 4,
  load: 5,
  turn: 6,
  bar: 7,
  beat: 8,
  part: 9,
  size: 10,
} as const

export type Shared = {
  head: SharedArrayBuffer
  ring: SharedArrayBuffer
  stamps: SharedArrayBuffer
  values: SharedArrayBuffer
  /** The window's own input: how many frames have come and which frame of the clock
      the first of them was, the frames, and beside every 128 of them which frame of the ring
      was read just then, and whether it flowed. */
  inHead: SharedArrayBuffer
  inRing: SharedArrayBuffer
  inMarks: SharedArrayBuffer
}

/** Frames that the input's ring holds: more than ten seconds at 48 kHz, a whole number of portions. */
export const IN_FRAMES = 1 << 19
export const PORTION = 128

export function allocate(): Shared {
  return {
    head: new SharedArrayBuffer(32),
    ring: new SharedArrayBuffer(RING_FRAMES * 2 * 4),
    stamps: new SharedArrayBuffer(SLOTS * STAMP.size * 8),
    values: new SharedArrayBuffer(SLOTS * SLOT_VALUES * 4),
    inHead: new SharedArrayBuffer(8),
    inRing: new SharedArrayBuffer(IN_FRAMES * 2 * 4),
    inMarks: new SharedArrayBuffer((IN_FRAMES / PORTION) * 2 * 4),
  }
}

/** What the engine is doing; the numbers are Go's (engine.State). */
export const STATE = { stopped: 0, playing: 1, waiting: 2 } as const

export type Point = { kind: string; owner: string; report: number }

/** What is asked of the engine and changes nothing: it is answered when there is time. */
export type Question = { do: 'ask'; name: string; of: string; ticket: number }

/** From the page to the worker. */
export type ToWorker =
  | Question
  | { do: 'start'; shared: Shared | null; program: string | WebAssembly.Module }
  | { do: 'document'; json: string; fresh: boolean }
  | { do: 'revision'; json: string }
  | { do: 'play' | 'stop' | 'measureAgain' }
  | { do: 'locate'; frame: number; grid: number }
  | { do: 'loop'; from: number; to: number }
  | { do: 'hear'; hearing: Hearing }
  | { do: 'move'; owner: string; name: string; value: number }
  | { do: 'try'; json: string; ticket: number }
  | { do: 'listen'; point: Listening }
  | { do: 'take'; owner: string; name: string; on: boolean }
  | { do: 'trial'; json: string }
  | { do: 'rms'; on: boolean }
  | { do: 'worked'; keys: string[] }
  | { do: 'watch'; stage: string }
  | { do: 'buffer'; frames: number }
  | { do: 'anyway' | 'atEnd' | 'drain'; on: boolean }
  | { do: 'fault' }
  | { do: 'ready'; rows: Ready[] }
  | { do: 'record'; recording: string; project: string; rows: string[] }
  | { do: 'own'; on: boolean; sides: Record<string, Side>; lead: boolean }
  | { do: 'endRecord' }
  | { do: 'click'; on: boolean; level: number }
  | { do: 'countIn'; bars: number }

/** Which side of the window's own input a row takes: both as they are, or one of them in the middle. */
export type Side = 'both' | 'left' | 'right'

/** A row that this window has made ready to be recorded: see engine.Ready. */
export type Ready = { row: string; hear: number; returns?: boolean }

/** What is listened to instead of the main output: see engine.Listening. */
export type Listening = { node?: string; change?: boolean; key?: boolean; paths?: string[] }

/** What this listener hears of the mix: see engine.Hearing. */
export type Hearing = { solo: string[]; dry: string; share: string; mono: boolean }

/** From the worker to the page. */
export type FromWorker =
  | { say: 'compiled'; program: WebAssembly.Module }
  | { say: 'timeline'; json: string }
  | { say: 'layout'; id: number; points: Point[] }
  | { say: 'answer'; ticket: number; json: string; trouble: string }
  | { say: 'costs'; json: string; memory: number }
  | { say: 'soundings'; json: string }
  | { say: 'spectrum'; values: Float32Array }
  | { say: 'broken'; stages: string[] }
  | { say: 'trouble'; text: string }
  | { say: 'transport'; state: number; trip: Trip | null }
  | { say: 'stopped' }
  | { say: 'arriving'; levels: Record<string, Arrival> }
  | { say: 'counting'; beats: number }
  | { say: 'taking'; row: string; overview: Overview; gone: boolean }
  | { say: 'unsafe'; seconds: number; trouble: string }
  | { say: 'recorded'; recording: string; over: boolean }
  | { say: 'waiting'; pages: number }
