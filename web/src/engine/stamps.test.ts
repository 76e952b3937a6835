import { expect, test } from 'vitest'
import { SLOTS, STAMP, STATE } from './ring'
import { newestStamp, stampAt } from './stamps'

function stamps(...list: { write: number; turn: number; layout?: number; state?: number }[]) {
  const out = new Float64Array(SLOTS * STAMP.size).fill(0)
  list.forEach((x, s) => {
    out[s * STAMP.size + STAMP.write] = x.write
    out[s * STAMP.size + STAMP.turn] = x.turn
    out[s * STAMP.size + STAMP.layout] = x.layout ?? 1
    out[s * STAMP.size + STAMP.state] = x.state ?? STATE.playing
  })
  return out
}

test('levels are those of the block that is heard', () => {
  const s = stamps({ write: 1024, turn: 1 }, { write: 2048, turn: 2 }, { write: 3072, turn: 3 })
  expect(stampAt(s, 1100, true)).toBe(1) // the block up to 2048 is heard
  expect(stampAt(s, 2100, true)).toBe(2)
  expect(stampAt(s, 9000, true)).toBe(2)
  expect(stampAt(s, 0, true)).toBe(0)
})

test('while nothing plays the newest of the same place counts', () => {
  const s = stamps({ write: 0, turn: 4 }, { write: 0, turn: 9 }, { write: 0, turn: 7 })
  expect(stampAt(s, 0, true)).toBe(1)
  // and also while the output is late and has not come to anything yet
  expect(stampAt(s, -4800, true)).toBe(1)
})

test('before anything is heard it is what comes next', () => {
  const s = stamps({ write: 4096, turn: 3 }, { write: 3072, turn: 2 }, { write: 5120, turn: 4 })
  expect(stampAt(s, -2000, true)).toBe(1)
})

test('slots that are being written, or were made for nothing, do not count', () => {
  expect(stampAt(stamps(), 0, false)).toBe(-1)
  expect(stampAt(stamps({ write: NaN, turn: 1 }, { write: 0, turn: 1, layout: 0 }), 0, true)).toBe(-1)
})

test('where the song stands or waits is shown at once, however late the output is', () => {
  const before = [
    { write: 9000, turn: 7 },
    { write: 9600, turn: 8, state: STATE.stopped },
  ]
  // the playhead was set: nothing flows, and much of what was made last has not been read
  const set = stamps(...before, { write: 9600, turn: 9, state: STATE.stopped })
  expect(stampAt(set, 4800, false)).toBe(2)
  const waits = stamps(...before, { write: 9600, turn: 9, state: STATE.waiting })
  expect(stampAt(waits, 4800, false)).toBe(2)
  // while the ring is filled before the first sound the playhead does not run ahead
  const begins = stamps({ write: 1024, turn: 1 }, { write: 4096, turn: 4 })
  expect(stampAt(begins, 0, false)).toBe(0)
})

test('where the engine stands is what was stamped last, though something older is heard', () => {
  const s = stamps({ write: 9024, turn: 2 }, { write: 8000, turn: 1 }, { write: NaN, turn: 3 })
  expect(newestStamp(s)).toBe(2)
  expect(newestStamp(new Float64Array(SLOTS * STAMP.size))).toBe(-1)
})
