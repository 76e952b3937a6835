import { expect, test } from 'vitest'
import { OwnInput } from './ownInput'
import { allocate, IN_FRAMES, PORTION } from './ring'

/** A ring for the input, filled as the worklet does it: every frame is its number. */
function input() {
  const shared = allocate()
  const head = new Int32Array(shared.inHead)
  const ring = new Float32Array(shared.inRing)
  const marks = new Int32Array(shared.inMarks)
  const own = new OwnInput(shared)
  let write = 0
  const comes = (heard: number, running = 1) => {
    const portion = (write / PORTION) % (IN_FRAMES / PORTION)
    marks[2 * portion] = heard
    marks[2 * portion + 1] = running
    for (let i = 0; i < PORTION; i++) {
      const at = 2 * ((write + i) % IN_FRAMES)
      ring[at] = write + i
      ring[at + 1] = -(write + i)
    }
    write += PORTION
    Atomics.store(head, 0, write)
  }
  return { own, comes }
}

test('what comes belongs to the frames of the song that were heard just then', () => {
  const { own, comes } = input()
  own.begin()
  own.record(true)
  for (let i = 0; i < 8; i++) own.wrote(1000 + i * 128, 48000 + i * 128, 128, true)
  for (let i = 0; i < 8; i++) comes(1000 + i * 128)
  own.drain()
  const t = own.taken()
  expect(t.runs).toEqual([{ input: 0, song: 48000, frames: 1024 }])
  expect(t.frames).toBe(1024)
  expect([t.data[0], t.data[1], t.data[2046]]).toEqual([0, -0, 1023])
  expect(own.taken().frames).toBe(0)
})

test('while playback waits the input goes on, and a new run begins behind it', () => {
  const { own, comes } = input()
  own.begin()
  own.record(true)
  for (let i = 0; i < 4; i++) own.wrote(i * 128, 5000 + i * 128, 128, true)
  comes(0, 0) // nothing is heard yet
  comes(0)
  comes(128)
  comes(256, 0) // it waits
  comes(256, 0)
  comes(256)
  own.drain()
  const t = own.taken()
  expect(t.frames, 'what came while it waited is kept, what came before it began is not').toBe(5 * 128)
  expect(t.runs).toEqual([
    { input: 0, song: 5000, frames: 256 },
    { input: 512, song: 5256, frames: 128 },
  ])
})

test('where the ring runs dry within a portion, only what was heard of it belongs to the song', () => {
  const { own, comes } = input()
  own.begin()
  own.record(true)
  for (let i = 0; i < 8; i++) own.wrote(i * 128, 5000 + i * 128, 128, true)
  comes(0)
  comes(128) // 50 of its frames are there
  comes(178) // none of it
  comes(178)
  comes(306)
  own.drain()
  const t = own.taken()
  expect(t.frames).toBe(5 * 128)
  expect(t.runs, 'the song never goes back').toEqual([
    { input: 0, song: 5000, frames: 178 },
    { input: 384, song: 5178, frames: 256 },
  ])
})

test('while it counts in, or the song stands, nothing is recorded', () => {
  const { own, comes } = input()
  own.begin()
  own.record(true)
  own.wrote(0, 0, 128, false)
  comes(0)
  own.drain()
  expect(own.taken().frames).toBe(0)
  expect(own.heard()).toHaveLength(256)
})

test('a row takes both sides, or one of them in the middle', () => {
  const { own, comes } = input()
  own.begin()
  own.record(true)
  own.wrote(0, 0, 128, true)
  comes(0)
  own.drain()
  own.sides = { l: 'left', r: 'right' }
  const t = own.taken()
  const pair = (row: string) => [...own.forRow(t, row).data.slice(20, 22)]
  expect(pair('both')).toEqual([10, -10])
  expect(pair('l')).toEqual([10, 10])
  expect(pair('r')).toEqual([-10, -10])
})

test('what came while the song ran before somebody said so is recorded too, and is heard once', () => {
  const { own, comes } = input()
  own.begin()
  for (let i = 0; i < 6; i++) own.wrote(i * 128, 9000 + i * 128, 128, true)
  comes(0, 0)
  for (let i = 0; i < 4; i++) comes(i * 128)
  own.drain()
  expect(own.heard()).toHaveLength(5 * 256)
  own.record(true)
  comes(4 * 128)
  own.drain()
  expect(own.heard()).toHaveLength(256)
  const t = own.taken()
  expect(t.runs).toEqual([{ input: 0, song: 9000, frames: 5 * 128 }])
  expect([t.data[0], t.data.length]).toEqual([128, 5 * 256])
})

test('what came before a jump, before anybody said that it is recorded, is left out', () => {
  const { own, comes } = input()
  own.begin()
  for (let i = 0; i < 3; i++) own.wrote(i * 128, 9000 + i * 128, 128, true)
  for (let i = 3; i < 6; i++) own.wrote(i * 128, 200 + i * 128, 128, true)
  for (let i = 0; i < 5; i++) comes(i * 128)
  own.drain()
  own.record(true)
  comes(5 * 128)
  own.drain()
  expect(own.taken().runs).toEqual([{ input: 0, song: 200 + 3 * 128, frames: 3 * 128 }])
})

test('ten seconds in which nobody looks lose nothing', () => {
  const { own, comes } = input()
  own.begin()
  own.record(true)
  const portions = (10 * 48000) / PORTION
  for (let i = 0; i < 4000; i++) own.wrote(i * 128, i * 128, 128, true)
  for (let i = 0; i < portions; i++) comes(i * 128)
  own.drain()
  expect(own.taken().frames).toBe(portions * PORTION)
})
