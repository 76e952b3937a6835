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
  /** The ears take so many portions, and the worker looks now and then; of some portions there is only a part, or nothing. */
  const go = (portions: number, look: number, there: (portion: number) => number = () => PORTION) => {
    Atomics.store(head, HEAD.running, 1)
    for (let i = 0; i < portions; i++) {
      own.wrote(ring, from + ring, there(i), true)
      Atomics.store(head, HEAD.before, ring)
      Atomics.add(head, HEAD.now, PORTION)
      ring += there(i)
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

test('where the ears run dry the song goes on behind it: one take, and every frame where it was played', () => {
  const { own, go } = heard(96000)
  own.begin()
  own.record(true)
  go(1500, 3, (i) => (i % 300 === 100 ? 50 : i % 300 > 100 && i % 300 < 120 ? 0 : PORTION))
  const t = own.taken()
  let end = 0
  let same = 0
  for (const run of t.runs) {
    expect(run.song, 'it never goes back').toBeGreaterThanOrEqual(end)
    end = run.song + run.frames
    for (let i = 0; i < run.frames; i++) {
      const got = t.data[2 * (run.input + i)]
      if (got === run.song + i - LATE) same++
      else expect(got, `frame ${run.song + i} of the song`).toBe(0)
    }
  }
  expect(t.runs.length, 'no more than the dry spells made').toBeLessThan(12)
  expect(same).toBeGreaterThan(1300 * PORTION)
})

test('while the song stands nothing is read', () => {
  const { own, go } = heard(0)
  own.begin()
  own.record(true)
  go(10, 1)
  expect(Math.max(...own.taken().data), 'shorter than the lead').toBe(0)
})
