import { expect, test } from 'vitest'
import { isLost, Lead, LEAD_SECONDS } from './lead'
import { OwnInput } from './ownInput'
import { allocate, HEAD, PORTION } from './ring'

const RATE = 48000
const LATE = LEAD_SECONDS * RATE

/** What is read to a frame of the song: its number. */
const read = (song: number, frames: number) =>
  Float32Array.from({ length: 2 * frames }, (_, i) => song + (i >> 1))

/** A song that is heard from a frame on, and a lead whose far end hears it too. */
function heard(from: number) {
  const shared = allocate()
  const head = new Int32Array(shared.head)
  const own = new OwnInput(shared)
  const lead = new Lead(shared, own.heardAt, read, RATE)
  let ring = 0
  /** The ears take so many portions, and the worker looks now and then. */
  const go = (portions: number, look: number) => {
    Atomics.store(head, HEAD.running, 1)
    for (let i = 0; i < portions; i++) {
      own.wrote(ring, from + ring, PORTION, true)
      Atomics.store(head, HEAD.before, ring)
      Atomics.add(head, HEAD.now, PORTION)
      ring += PORTION
      if (i % look === 0) {
        lead.arrive()
        own.drain()
      }
    }
    for (let i = 0; i < 40; i++) {
      lead.arrive()
      own.drain()
    }
  }
  return { own, go }
}

test('what is read at the far end arrives late by the lead, whole but for what is lost, however it comes', () => {
  for (const look of [1, 3, 11]) {
    const { own, go } = heard(96000)
    own.begin()
    own.record(true)
    go(1500, look)
    const t = own.taken()
    expect(t.runs, 'one run').toHaveLength(1)
    const run = t.runs[0]!
    expect(run.frames).toBeGreaterThan(1400 * PORTION)
    let lost = 0
    for (let i = 0; i < run.frames; i += PORTION) {
      const song = run.song + i - LATE
      if (song < 96000) continue // it begins within a portion
      const want = isLost(song) ? 0 : song
      if (want === 0) lost++
      expect(t.data[2 * (run.input + i)]).toBe(want)
    }
    expect(lost).toBeGreaterThan(0)
  }
})

test('while the song stands nothing is read', () => {
  const { own, go } = heard(0)
  own.begin()
  own.record(true)
  go(10, 1)
  expect(Math.max(...own.taken().data), 'shorter than the lead').toBe(0)
})
