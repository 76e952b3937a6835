// @vitest-environment node
import { readFileSync } from 'node:fs'
import { beforeAll, expect, test } from 'vitest'
import type { Project } from '../api/types'
import { revisionOf } from './revision'
import { document } from '../testing/server'
import type { Exports } from './exports'

/* The engine itself, as WebAssembly: what the worker asks of it, asked by hand. */

declare const Go: new () => { importObject: WebAssembly.Imports; run(i: WebAssembly.Instance): Promise<void> }

let e: Exports

beforeAll(async () => {
  await import('./gen/wasm_exec.js' as string)
  const go = new Go()
  const { instance } = await WebAssembly.instantiate(
    readFileSync('src/engine/gen/engine.wasm'),
    go.importObject,
  )
  void go.run(instance)
  e = instance.exports as unknown as Exports
})

function write(text: string): number {
  const bytes = new TextEncoder().encode(text)
  new Uint8Array(e.mem.buffer, e.room(bytes.length), bytes.length).set(bytes)
  return bytes.length
}

const text = () => new TextDecoder().decode(new Uint8Array(e.mem.buffer, e.textAt(), e.textLength()).slice())

const stage = {
  id: 's',
  name: '',
  effect: 'trim',
  version: 1,
  params: { gain: -6 },
  bypass: false,
  mix: 100,
  mixLaw: 'blend',
  actsOn: 'both',
  ringOut: false,
  mixLock: false,
}

/** A row that plays one page of a constant, through a trim of -6 dB. */
const song = () => {
  const p = document()
  const hash = 'ab'.repeat(32)
  const a = p.channels[0]!
  p.audio = [{ hash, name: 'steady.wav', frames: 40000, channels: 1 }]
  a.clips = [
    {
      id: 'c',
      name: 'steady',
      audio: hash,
      follows: false,
      start: 0,
      offset: 0,
      frames: 40000,
      gain: 0,
      fadeIn: 0,
      fadeOut: 0,
      exact: true,
    },
  ]
  a.chain.nodes = [{ stage: { ...stage } as never }]
  return p
}

/** Lets what was read be heard, where it was not refused, as the worker does. */
const heard = (refused: number) => {
  if (refused) return refused
  e.prepare()
  return e.adopt()
}

const give = (p: object, fresh = 1) => e.document(write(JSON.stringify(p)), fresh)

function page(frames: number, value: number) {
  const bytes = new Uint8Array(new Float32Array(frames).fill(value).buffer)
  const at = e.room(64 + bytes.length)
  const memory = new Uint8Array(e.mem.buffer)
  memory.set(new TextEncoder().encode('ab'.repeat(32)), at)
  memory.set(bytes, at + 64)
  return frames
}

test('a project that is none is refused in words', () => {
  expect(e.document(write('{"version":'), 1)).toBe(1)
  expect(text()).toMatch(/read project/)
  const p = song()
  p.channels[0]!.chain.nodes[0]!.stage!.effect = 'sparkle'
  expect(give(p)).toBe(1)
  expect(text()).toMatch(/there is no effect "sparkle"/)
  expect(e.revision(write('{}')), 'there is none before it').toBe(1)
})

test('the song is laid out, and asks for the audio that it needs', () => {
  expect(give(song())).toBe(0)
  e.timeline()
  const t = JSON.parse(text()) as { end: number; shown: number; outline: { rows: Record<string, string> } }
  expect(t.end, 'a whole bar at 100 beats a minute').toBe(115200)
  expect(t.shown, 'and room for what is to come').toBe(16 * 115200)
  expect(t.outline.rows.s).toBe('a')
  expect(e.need(48000)).toBeGreaterThan(0)
  expect((JSON.parse(text()) as { page: number }[]).map((m) => m.page)).toContain(0)
})

test('it plays what it was given, 6 dB down, and waits for what is not there', () => {
  e.play()
  expect(e.render(), 'a page is missing').toBe(0)
  expect(e.state()).toBe(2)
  e.page(0, page(32768, 0.5), 1)
  let last = 0
  for (let i = 0; i < 100; i++) {
    const n = e.render()
    expect(n).toBeGreaterThan(0)
    last = new Float32Array(e.mem.buffer, e.outAt(), 2 * n).at(-1)!
  }
  expect(last).toBeCloseTo(0.5 * 10 ** (-6 / 20), 5)
  expect(e.position()).toBe(100 * 128)
  expect(e.state()).toBe(1)
})

test('a hand is heard before the document knows of it', () => {
  e.move(write('s\ngain'), -120)
  let last = 1
  for (let i = 0; i < 20; i++) last = new Float32Array(e.mem.buffer, e.outAt(), 2 * e.render()).at(-1)!
  expect(last).toBe(0)
})

test('a revision brings only the rows and lines that changed', () => {
  const line = (value: number) => ({ owner: 's', name: 'gain', points: [{ tick: 0, value, shape: 'ramp' }] })
  const revise = (was: object, now: object) =>
    heard(e.revision(write(JSON.stringify(revisionOf(was as Project, now as Project)))))
  const points = () => {
    expect(e.ask(write('line\n{"owner":"s","name":"gain","from":0,"to":1000,"steps":2}'))).toBe(0)
    return (JSON.parse(text()) as { points: { value: number }[] }).points
  }
  const p = song()
  const lined = { ...p, lines: [line(-12)] }
  expect(revise(p, lined)).toBe(0)
  expect(points()[0]!.value).toBe(-12)
  const named = { ...lined, name: 'Other' }
  expect(revise(lined, named)).toBe(0)
  expect(points(), 'the line is as it was').toHaveLength(1)
  const bare = { ...named.channels[0]!, chain: { bypass: false, nodes: [] } }
  expect(revise(named, { ...named, channels: [bare, ...named.channels.slice(1)] })).toBe(1)
  expect(text()).toMatch(/automation line gain: it is no longer there/)
  const rest = { ...named, channels: [], lines: [] }
  const none = { count: 0, changed: [] }
  expect(e.revision(write(JSON.stringify({ rest, rows: none, lines: { count: 2, changed: [] } })))).toBe(1)
  expect(text()).toMatch(/there cannot be 2 of them: there were 1, and 0 are brought/)
})

test('what is tried is heard and drawn, and given back', () => {
  give(song())
  const replaced = [{ type: 'stage.turn', do: { id: 's', effect: 'equaliser' } }]
  expect(heard(e.try(write(JSON.stringify(replaced))))).toBe(0)
  expect(e.ask(write('draw\n{"id":"s"}'))).toBe(0)
  expect(text()).toMatch(/"curves"/)
  expect(heard(e.try(write('[]')))).toBe(0)
  expect(e.try(write('[{"type":"stage.turn","do":{"id":"gone","effect":"delay"}}]'))).toBe(1)
  expect(text()).toMatch(/no longer there/)
  expect(e.ask(write('what\n{}'))).toBe(1)
  expect(text()).toMatch(/nobody can answer "what"/)
})

test('what is tried changes nothing of what is said of the document', () => {
  give(song())
  e.timeline()
  const before = text()
  expect(
    heard(e.try(write('[{"type":"stage.add","do":{"id":"new","owner":"a","index":0,"effect":"delay"}}]'))),
  ).toBe(0)
  e.timeline()
  expect(text()).toBe(before)
  heard(e.try(write('[]')))
})

test('levels come for the points of the layout', () => {
  e.layout()
  const points = JSON.parse(text()) as { kind: string; owner: string }[]
  expect(points.map((p) => `${p.kind} ${p.owner}`)).toContain('post a')
  expect(e.readLevels()).toBeGreaterThan(points.length)
})
