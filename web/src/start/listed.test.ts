import { expect, test } from 'vitest'
import type { Listed } from '../api/types'
import { figures, listed } from './listed'

const project = (name: string, more: Partial<Listed> = {}): Listed => ({
  id: name,
  name,
  revision: 1,
  created: '2026-11-01',
  changed: '2026-11-01',
  binned: '',
  by: '',
  here: [],
  role: 'owner',
  chart: { seconds: 0, sections: [], rows: [] },
  ...more,
})

const weir = project('Weir', {
  by: 'Odile',
  changed: '2026-11-03',
  created: '2026-11-02',
  chart: {
    seconds: 143.9,
    sections: [{ name: 'Flood', at: 0 }],
    rows: [{ name: 'Bells', kind: 'track', tint: 1, stages: 2, clips: [[0, 1]] }],
  },
})
const lock = project('Lock', { changed: '2026-11-05' })
const names = (words: string, order: Parameters<typeof listed>[2] = 'changed') =>
  listed([weir, lock], words, order).map((p) => p.name)

test('projects are found by what they are called, what is in them, and who changed them', () => {
  expect(names('lock')).toEqual(['Lock'])
  expect(names('flood')).toEqual(['Weir'])
  expect(names('bells')).toEqual(['Weir'])
  expect(names('odile')).toEqual(['Weir'])
  expect(names('nobody')).toEqual([])
})

test('they are listed in an order', () => {
  expect(names('')).toEqual(['Lock', 'Weir'])
  expect(names('', 'length')).toEqual(['Weir', 'Lock'])
  expect(names('', 'made')).toEqual(['Weir', 'Lock'])
  expect(names('', 'name')).toEqual(['Lock', 'Weir'])
})

test('what a project is, in figures', () => {
  expect(figures(weir)).toBe('2:23 · 1 row')
  expect(figures(lock)).toBe('0 rows, no sound yet')
  expect(figures(project('New', { chart: undefined }))).toContain('cannot be read')
})
