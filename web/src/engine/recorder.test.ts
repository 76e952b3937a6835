import { expect, test } from 'vitest'
import { type Overview, Recorder, type Taken } from './recorder'
import type { Part, Tapes } from './tapes'

const taken = (at: number, frames: number, song: number): Taken => ({
  at,
  frames,
  runs: [{ input: 0, song, frames: at + frames }],
  data: new Float32Array(2 * frames).fill(0.25),
})

function recorder(list: (Taken | null)[]) {
  const parts: Part[] = []
  const seen: Overview[] = []
  const gone: boolean[] = []
  const tapes = { put: (p: Part) => parts.push(p), end: () => Promise.resolve(true) } as unknown as Tapes
  const r = new Recorder(
    () => list.shift() ?? null,
    tapes,
    (_, o, g) => {
      if (o.levels.length) seen.push(o)
      gone.push(g)
    },
    () => 4000,
  )
  r.begin('rec', 'p', ['a'])
  return { r, parts, seen, gone }
}

test('it hands on a second at a time, and at the end all that is left', async () => {
  const { r, parts } = recorder([taken(0, 3000, 50), taken(3000, 2000, 50), taken(5000, 500, 50)])
  r.drain()
  expect(parts).toHaveLength(0)
  r.drain()
  expect(parts.map((p) => [p.at, p.data.length / 2])).toEqual([[0, 5000]])
  r.drain(true)
  expect(parts.map((p) => [p.at, p.data.length / 2])).toEqual([
    [0, 5000],
    [5000, 500],
  ])
  expect(parts[1]!.runs).toEqual([{ input: 0, song: 50, frames: 5500 }])
  expect(await r.end()).toEqual({ recording: 'rec', over: false })
  expect(r.id).toBe('')
})

test('what has come is seen where it lies in the song, run by run', () => {
  const two: Taken = {
    at: 1000,
    frames: 4096,
    runs: [
      { input: 0, song: 500, frames: 3048 },
      { input: 3048, song: 100, frames: 2048 },
    ],
    data: new Float32Array(8192).map((_, i) => (i < 4096 ? 0.5 : -1)),
  }
  const { r, seen } = recorder([two])
  r.drain()
  expect(seen.map((o) => [o.song, o.step, [...o.levels]])).toEqual([
    [1500, 1024, [0.5, 0.5, 0.5, 0.5]],
    [100, 1024, [1, 1, 1, 1]],
  ])
})

test('an input that goes is said at once', () => {
  const { r, gone } = recorder([{ ...taken(0, 100, 0), gone: true }])
  r.drain()
  expect(gone).toContain(true)
})
