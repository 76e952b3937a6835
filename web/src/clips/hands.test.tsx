import { fireEvent, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Clip } from '../api/types'
import type { Lens } from '../document/time'
import { setSession } from '../session/store'
import { setView, view } from '../session/view'
import { clip, draw, open, stage } from '../testing/screen'
import * as actions from './actions'
import { ClipView } from './ClipView'
import { CutMarks } from './CutMarks'
import { hearPiece, loopPiece, wayOf } from './hearing'
import * as treatment from './treatment'
import { swellAt } from './wave'

type Asked = { type: string; do: Record<string, unknown> }
const asked: Asked[][] = []

beforeEach(() => {
  asked.length = 0
  vi.stubGlobal('fetch', (input: RequestInfo | URL) => {
    if (!(input instanceof Request)) return Promise.resolve(new Response('', { status: 404 })) // there is nothing to draw with here
    return input.json().then((body: { changes?: Asked[] }) => {
      if (body.changes) asked.push(body.changes)
      return Response.json({ revision: 1, label: '' })
    })
  })
})
afterEach(() => vi.unstubAllGlobals())

/** A hundred frames a pixel: a clip of 48000 frames is 480 pixels wide. */
const lens: Lens = { x: (f) => f / 100, frame: (x) => x * 100, perPixel: 100, scroll: 0 }

function song(...clips: Clip[]) {
  const p = open((p) => {
    p.audio = [{ hash: 'x', name: 'Reading', frames: 96000, channels: 1 }]
    p.channels[0]!.clips = clips
    p.treatments = [{ id: 't', name: '', chain: { bypass: false, nodes: [{ stage: stage('st', 'trim') }] } }]
  })
  setSession((s) => ({
    timeline: { ...s.timeline!, clips: Object.fromEntries(clips.map((c, i) => [c.id, i * 60000])) },
  }))
  setView({ clips: [], piece: null, marks: {}, solo: [], listening: null, grid: 240 })
  return p
}

function shown(x: Clip, height = 100) {
  const p = song(x)
  HTMLElement.prototype.setPointerCapture ??= () => undefined
  SVGElement.prototype.setPointerCapture ??= () => undefined
  document.elementsFromPoint ??= () => []
  draw(<ClipView clip={x} row={p.channels[0]!.id} start={0} lens={lens} width={1000} height={height} />)
  const el = screen.getByRole('group', { name: /^Clip a, a clip/ })
  el.getBoundingClientRect = () =>
    ({ left: 0, top: 0, width: 480, height, right: 480, bottom: height }) as DOMRect
  return el
}

function drag(el: Element, from: number, to: number, keys = {}) {
  fireEvent.pointerDown(el, { clientX: from, button: 0, pointerId: 1, ...keys })
  fireEvent.pointerMove(el, { clientX: to, pointerId: 1, ...keys })
  fireEvent.pointerUp(el, { clientX: to, pointerId: 1, ...keys })
}

test('carried in its middle, trimmed at its edges, slid with Shift and Alt', async () => {
  const el = shown(clip('a'))
  drag(el, 200, 260)
  await waitFor(() =>
    expect(asked[0]![0]).toMatchObject({ type: 'clip.move', do: { id: 'a', by: 6000, snap: 240 } }),
  )
  drag(el, 478, 428)
  await waitFor(() =>
    expect(asked[1]![0]).toEqual({
      type: 'clip.trim',
      do: { id: 'a', edge: 'end', by: -5000, both: false, snap: { grid: 240, near: 600 } },
    }),
  )
  drag(el, 2, 22, { altKey: true, ctrlKey: true })
  await waitFor(() =>
    expect(asked[2]![0]).toEqual({
      type: 'clip.trim',
      do: { id: 'a', edge: 'begin', by: 2000, both: true, snap: {} },
    }),
  )
  drag(el, 200, 150, { altKey: true, shiftKey: true })
  await waitFor(() => expect(asked[3]![0]).toEqual({ type: 'clip.slip', do: { id: 'a', by: -5000 } }))
})

test('a press selects; with Ctrl it adds; with Shift it is the row that a range begins on', () => {
  const el = shown(clip('a'))
  drag(el, 200, 200)
  expect(view().clips).toEqual(['a'])
  drag(el, 200, 200, { ctrlKey: true })
  expect(view().clips).toEqual([])
  drag(el, 200, 260, { shiftKey: true })
  expect(asked).toEqual([])
})

test('several that are selected are carried together and keep their distances', async () => {
  const el = shown(clip('a'))
  const p = song(clip('a'), clip('b'))
  setView({ clips: ['a', 'b'], channel: p.channels[0]!.id })
  drag(el, 200, 300)
  await waitFor(() =>
    expect(asked[0]!.map((c) => c.do)).toMatchObject([
      { id: 'a', by: 10000, snap: 0 },
      { id: 'b', by: 10000, snap: 0 },
    ]),
  )
})

test('a fade is lengthened and bent at its corner, and by keys', async () => {
  const p = shown(clip('a'))
  setView({ clips: ['a'] })
  const fade = await screen.findByRole('slider', { name: 'Fade in of Clip a' })
  fireEvent.pointerDown(fade, { clientX: 0, clientY: 0, pointerId: 1 })
  fireEvent.pointerMove(fade, { clientX: 30, clientY: -50, pointerId: 1 })
  fireEvent.pointerUp(fade, { clientX: 30, clientY: -50, pointerId: 1 })
  await waitFor(() => expect(asked[0]![0]!.do).toEqual({ id: 'a', fadeIn: 3000, inBend: 0.5 }))
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Fade out of Clip a' }), { key: 'ArrowLeft' })
  await waitFor(() => expect(asked[1]![0]!.do).toMatchObject({ id: 'a', fadeOut: 480 }))
  expect(p).toBeTruthy()
})

test('points of a swell go by keys, hold, and are taken off', async () => {
  shown(
    clip('a', {
      swell: [
        { at: 9600, gain: -6 },
        { at: 19200, gain: 0 },
      ],
    }),
  )
  setView({ clips: ['a'] })
  const first = await screen.findByRole('slider', { name: 'Swell point 1 of Clip a' })
  fireEvent.keyDown(first, { key: 'ArrowUp' })
  await waitFor(() =>
    expect(asked[0]![0]!.do).toMatchObject({
      swell: [
        { at: 9600, gain: -5.5 },
        { at: 19200, gain: 0 },
      ],
    }),
  )
  fireEvent.keyDown(first, { key: 'h' })
  await waitFor(() =>
    expect(asked[1]![0]!.do).toMatchObject({ swell: [{ gain: -6, step: true }, { gain: 0 }] }),
  )
  fireEvent.keyDown(first, { key: 'Delete' })
  await waitFor(() => expect(asked[2]![0]!.do).toEqual({ id: 'a', swell: [{ at: 19200, gain: 0 }] }))
})

test('a swell is drawn as Go hears it: straight in dB, or held', () => {
  const x = clip('a', {
    swell: [
      { at: 100, gain: -12 },
      { at: 200, gain: 0, step: true },
      { at: 400, gain: -6 },
    ],
  })
  expect([0, 100, 150, 200, 399, 400, 900].map((f) => swellAt(x, f))).toEqual([-12, -12, -6, 0, 0, -6, -6])
  expect(swellAt(clip('b'), 5)).toBe(0)
})

test('a cut is at the range if one is drawn, else at the playhead, on what is selected', async () => {
  const p = song(clip('a'), clip('b'))
  const row = p.channels[0]!.id
  setView({ channel: row, piece: { from: 1000, to: 5000, rows: [row] } })
  await actions.cut()
  expect(asked[0]![0]!.do).toMatchObject({ ids: [], rows: [row], at: [1000, 5000] })
  setView({ piece: null, clips: ['b'] })
  await actions.cut()
  expect(asked[1]![0]!.do).toMatchObject({ ids: ['b'], rows: [], at: [0] })
  setView({ clips: [], piece: { from: 50000, to: 61000, rows: [row] } })
  actions.takeUnder()
  expect(view().clips).toEqual(['b'])
})

test('a piece is heard alone, through its row, in the mix; and looped', () => {
  const p = song(clip('a'), clip('b'))
  const row = p.channels[0]!.id
  setView({ channel: row, clips: ['b'] })
  hearPiece('alone')
  expect([wayOf(row), view().listening?.node]).toEqual(['alone', row])
  hearPiece('row')
  expect([wayOf(row), view().solo, view().listening]).toEqual(['row', [row], null])
  hearPiece('row')
  expect(wayOf(row)).toBe('mix')
  loopPiece()
  expect(view().loop).toMatchObject({ from: 60000, to: 108000 })
  loopPiece()
  expect(view().looping).toBe(false)
})

test('a treatment is entered, put in and out, and put on other clips', async () => {
  song(clip('a', { treatment: 't' }), clip('b'))
  setView({ clips: ['a'] })
  treatment.enter()
  expect(view().stage).toBe('st')
  await treatment.toggle()
  expect(asked[0]![0]).toEqual({ type: 'chain.set', do: { owner: 't', bypass: true } })
  treatment.keep(clip('a'))
  setView({ clips: ['a', 'b'], stage: '' })
  await treatment.put(true)
  expect(asked[1]![0]!.do).toEqual({ from: 'a', clips: ['b'], copy: true })
  setView({ clips: ['b'] })
  treatment.openTreatment()
  expect(view().dialog).toMatchObject({ kind: 'effects', clips: ['b'] })
})

test('marks are dragged before anything is cut, and taken off', () => {
  song(clip('a'))
  setView({ marks: { a: [10000, 20000] } })
  draw(<CutMarks clip="a" left={0} lens={lens} height={40} />)
  const [first] = screen.getAllByRole('img', { name: 'A place to cut at' })
  drag(first!, 100, 130)
  expect(view().marks.a).toEqual([13000, 20000])
  fireEvent.doubleClick(screen.getAllByRole('img', { name: 'A place to cut at' })[1]!)
  expect(view().marks.a).toEqual([13000])
})

test('what a range only grazes is not under it: edges lie on ticks', () => {
  const p = song(clip('a'), clip('b', { start: 60000 }))
  const over = (from: number, to: number) => {
    setView({ piece: { from, to, rows: [p.channels[0]!.id] }, clips: [] })
    actions.takeUnder()
    return view().clips
  }
  expect(over(10000, 60013)).toEqual(['a'])
  expect(over(47990, 70000)).toEqual(['b'])
  expect(over(10000, 70000)).toEqual(['a', 'b'])
})
