import type { KeyboardEvent } from 'react'
import { beforeEach, expect, test } from 'vitest'
import type { LineView } from '../api/types'
import { setView, type Stretch, view } from '../session/view'
import type { Line } from './drag'
import { lineKey } from './lineKeys'

const v = { owner: 'a', name: 'fader', points: [{ tick: 0 }, { tick: 480 }] } as LineView
const of = { owner: 'a', name: 'fader', from: 0, to: 100, ticks: [0, 480] }

/** Presses a key on a line of which something is selected, and tells whether the line took it. */
function press(key: string, stretch: Stretch | null) {
  let taken = false
  const line = { v, row: 'a', mine: () => stretch } as Line
  const e = { key, preventDefault: () => (taken = true), stopPropagation: () => undefined }
  lineKey(line)(e as unknown as KeyboardEvent)
  return taken
}

beforeEach(() => setView({ dialog: null }))

test('Enter asks for the value of selected points, or for one to be held over a stretch that was drawn', () => {
  expect(press('Enter', of)).toBe(true)
  expect(view().dialog).toMatchObject({ kind: 'value', points: true })
  expect(press('Enter', { ...of, drawn: true })).toBe(true)
  expect(view().dialog).toMatchObject({ kind: 'value', points: false })
})

test('where nothing of the line is selected, Enter is left to others', () => {
  expect(press('Enter', null)).toBe(false)
  expect(view().dialog).toBeNull()
})

test('a figure begins the value that is typed, unless nothing is selected', () => {
  expect(press('-', of)).toBe(true)
  expect(view().dialog).toMatchObject({ kind: 'value', points: true, begun: '-' })
  setView({ dialog: null })
  expect(press('4', null)).toBe(false)
  expect(view().dialog).toBeNull()
})

test('by arrow keys from point to point, as long as its row is selected', () => {
  setView({ channel: 'a', stretch: null })
  expect(press('ArrowRight', null)).toBe(true)
  expect(view().stretch?.ticks).toEqual([0])
  expect(press('ArrowRight', { ...of, ticks: [0] })).toBe(true)
  expect(view().stretch?.ticks).toEqual([480])
  expect(press('ArrowLeft', null)).toBe(true)
  expect(view().stretch?.ticks).toEqual([480]) // from behind the last
  setView({ channel: 'b' })
  expect(press('ArrowRight', null)).toBe(false)
})
