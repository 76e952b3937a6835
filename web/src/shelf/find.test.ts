import { expect, test } from 'vitest'
import type { Thing } from '../api/types'
import { find } from './find'

const thing = (id: string, more: Partial<Thing>): Thing => ({
  id,
  kind: 'sound',
  name: id,
  says: '',
  tags: [],
  shipped: false,
  from: {},
  heard: '',
  frames: 48000,
  kept: { rate: 48000, clips: [], audio: [] },
  ...more,
})

const list = [
  thing('Great bell', { tags: ['low'], pitch: 'D3', frames: 9 * 48000, shipped: true }),
  thing('Tick', { says: 'The smallest click.', frames: 4800 }),
  thing('Words', { kind: 'print', tempo: 88, from: { project: 'Slack Water', row: 'Tide table' } }),
  thing('Strokes', {
    kind: 'slices',
    tempo: 120,
    frames: 3 * 44100,
    kept: { rate: 44100, clips: [], audio: [] },
  }),
]
const found = (w: object) => find(list, { text: '', kind: '', length: '', tempo: 0, ...w }).map((t) => t.id)

test('things are found by words, wherever these stand', () => {
  expect(found({ text: 'bell' })).toEqual(['Great bell'])
  expect(found({ text: 'd3' })).toEqual(['Great bell'])
  expect(found({ text: 'low' })).toEqual(['Great bell'])
  expect(found({ text: 'click smallest' })).toEqual(['Tick'])
  expect(found({ text: 'tide slack' })).toEqual(['Words'])
  expect(found({ text: 'nowhere' })).toEqual([])
})

test('and by kind, length and tempo', () => {
  expect(found({})).toHaveLength(4)
  expect(found({ kind: 'print' })).toEqual(['Words'])
  expect(found({ length: 'short' })).toEqual(['Tick', 'Words'])
  expect(found({ length: 'middle' })).toEqual(['Strokes'])
  expect(found({ length: 'long' })).toEqual(['Great bell'])
  expect(found({ tempo: 90 })).toEqual(['Words'])
  expect(found({ tempo: 100 })).toEqual([])
  expect(found({ kind: 'sound', length: 'long', text: 'bell' })).toEqual(['Great bell'])
})
