import { describe, expect, it } from 'vitest'
import type { Fork, Node, Path } from '../api/types'
import { chainHeight, forkHeight, GAP, HEAD, HUNG, isOpen, LINE, lines } from './braid'

const path = (id: string, nodes: Node[] = []) => ({ id, chain: { bypass: false, nodes } }) as unknown as Path
const fork = (...paths: Path[]) => ({ id: 'f', paths }) as unknown as Fork
const stage = { stage: { id: 's' } } as unknown as Node

describe('where strands lie', () => {
  const inner = fork(path('q1'), path('q2', [stage]))
  const outer = fork(path('p1'), path('p2', [{ fork: inner } as Node]))
  it('adds up, forks in forks included', () => {
    expect(chainHeight([], () => true)).toBe(HUNG)
    expect(forkHeight(inner, () => true)).toBe(2 * HEAD + GAP + HUNG)
    expect(forkHeight(inner, () => false)).toBe(2 * HEAD + GAP)
    expect(chainHeight([{ fork: inner } as Node], () => true)).toBe(2 * HEAD + GAP + HUNG)
    expect(forkHeight(outer, () => true)).toBe(4 * HEAD + 2 * GAP + HUNG)
  })
  it('folds a fork in a fork until one of its paths is open', () => {
    expect(isOpen(inner, (p) => p.id === 'q2')).toBe(true)
    expect(isOpen(inner, (p) => p.id === 'p2')).toBe(false)
    expect(forkHeight(outer, (p) => p.id === 'p2')).toBe(2 * HEAD + GAP + HUNG)
  })
  it('runs through the stages of a strand, and through the head of one that shows none', () => {
    expect(lines(outer, () => false)).toEqual([HEAD / 2, HEAD + GAP + HEAD / 2])
    expect(lines(inner, (p) => p.id === 'q2')).toEqual([HEAD / 2, HEAD + GAP + HEAD + LINE])
  })
})
