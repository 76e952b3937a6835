import { useEffect, useLayoutEffect, useRef } from 'react'
import type { Heard } from '../engine/engine'
import { theEngine } from './sound'
import { useSession } from './store'
import { useView } from './view'

/** Paints what is heard, outside React: figures and bars move without a render. */
type Painter = (h: Heard) => void

/** How often a painter works: movements 30, meters 15, figures 4 times a second. Calm enough to
    read, and the machine is left to the sound. */
export type Pace = 'movement' | 'meter' | 'figure'

const every: Record<Pace, number> = { movement: 1, meter: 2, figure: 8 }
const painters: Record<Pace, Set<Painter>> = { movement: new Set(), meter: new Set(), figure: new Set() }
/** Milliseconds between two pictures, of which each takes so many. When the sound takes most of the
    machine, pictures give way: they get a quarter of the time at most. */
export const interval = (load: number, took: number) =>
  Math.max(load < 0.5 ? 31 : load < 0.75 ? 62 : 180, Math.min(400, took * (load < 0.5 ? 2 : 4)))

/** For so long after anything last changed it is painted, in ms: what falls has fallen by then, and what was held is let go. */
const RESTS = 3000
/** How often it is looked whether anything has changed while all rests, in ms. */
const LOOKS = 60

let load = 0
let took = 0 // ms: the last pictures, from their script until they are handed on
let painted = 0
let count = 0
let running = false
let stirred = 0
let last: Heard | null = null
let lastSong = 0

/** Whether nothing that is heard or shown has changed for a while: nobody need ask or paint. */
export const rests = () => performance.now() - stirred > RESTS
const stir = () => void (stirred = performance.now())
useView.subscribe(stir)
useSession.subscribe(stir)
for (const gesture of ['pointerdown', 'keydown']) window.addEventListener(gesture, stir, true)

/** The highest peaks since a pace last painted: a slow painter must not miss a short peak. */
type Highest = { peaks: Map<string, [number, number]>; truePeak: number }
export const none = (): Highest => ({ peaks: new Map(), truePeak: -120 })
const highest: Record<Pace, Highest> = { movement: none(), meter: none(), figure: none() }

export function gather(into: Highest, h: Heard) {
  into.truePeak = Math.max(into.truePeak, h.truePeak)
  for (const [key, [l, r]] of h.peaks) {
    const p = into.peaks.get(key)
    if (p) {
      p[0] = Math.max(p[0], l)
      p[1] = Math.max(p[1], r)
    } else into.peaks.set(key, [l, r]) // a pair of its own: the engine's is used again
  }
}

// A message that is sent while a picture is worked out comes when it has been: style, layout and paint
// belong to it.
const after = new MessageChannel()
let begun = 0
after.port1.onmessage = () => (took += 0.2 * (performance.now() - begun - took))

function frame(at: number) {
  running = Object.values(painters).some((p) => p.size > 0)
  const due = at - painted >= interval(load, took)
  const h = due ? (theEngine()?.heard() ?? null) : null
  if (h && (h !== last || h.song !== lastSong)) stir()
  const still = due && rests()
  // first: a painter that fails must not end the others
  if (running && still) setTimeout(() => frame(performance.now()), LOOKS)
  else if (running) requestAnimationFrame(frame)
  if (!due || still) return
  painted = at
  count++
  begun = performance.now()
  after.port2.postMessage(0)
  load = h?.load ?? 0
  if (h) paint(h)
}

function paint(h: Heard) {
  last = h
  lastSong = h.song
  for (const pace of ['movement', 'meter', 'figure'] as const) {
    gather(highest[pace], h)
    if (count % every[pace] !== 0) continue
    const seen = { ...h, peaks: highest[pace].peaks, truePeak: highest[pace].truePeak }
    for (const p of painters[pace]) p(seen)
    highest[pace] = none()
  }
}

export function useHeard(paint: Painter, pace: Pace = 'movement') {
  const ref = useRef(paint)
  useEffect(() => {
    ref.current = paint
    stir() // it may paint otherwise than before
  })
  // as soon as its elements go: a painter that runs once more finds none
  useLayoutEffect(() => {
    const p: Painter = (h) => ref.current(h)
    painters[pace].add(p)
    if (!running) {
      running = true
      requestAnimationFrame(frame)
    }
    return () => void painters[pace].delete(p)
  }, [pace])
}

/** Keeps the highest level over a time in ms, so that a figure can be read. */
export class Hold {
  private top = -120
  private since = 0
  private shown = -120

  constructor(private ms: number) {}

  feed(level: number, at = performance.now()): number {
    this.top = Math.max(this.top, level)
    if (at - this.since > this.ms || this.top > this.shown + 3) {
      this.shown = this.top
      this.top = level
      this.since = at
    }
    return this.shown
  }
}
