import { expect, it } from 'vitest'
import type { Node } from '../api/types'
import { foldTo } from './fold'

const stage = (effect: string) => ({ stage: { id: effect, name: '', effect } }) as unknown as Node
const fork = (name: string) => ({ fork: { id: name, name, paths: [] } }) as unknown as Node
const stages = (n: number) => Array.from({ length: n }, () => stage('equaliser'))

it('shows names where they have room, pictures where these have, and folds the middle where not', () => {
  expect(foldTo(stages(3), 480)).toEqual({ full: true, from: 0, count: 0 })
  expect(foldTo(stages(5), 480)).toEqual({ full: false, from: 0, count: 0 })
  const folded = foldTo(stages(9), 480)
  expect(folded.full).toBe(false)
  expect((9 - folded.count) * 72 + 58).toBeLessThanOrEqual(480)
  expect(folded.from).toBeGreaterThan(0)
  expect(folded.from + folded.count).toBeLessThan(9)
})

it('knows that a fork keeps its name', () => {
  const nodes = [...stages(4), fork('A hall that turns')]
  expect(foldTo(stages(5), 400).count).toBe(0)
  expect(foldTo(nodes, 400).count).toBeGreaterThan(0)
})

it('keeps the first and the last however little room there is', () => {
  expect(foldTo([stage('a'), fork('A very long name'), stage('b'), fork('Another long name')], 50)).toEqual({
    full: false,
    from: 1,
    count: 2,
  })
})
