import { describe, expect, it } from 'vitest'
import type { Fork, Node, Path } from '../api/types'
import { chainHeight, FOLDED, forkHeight, GAP, middles, STRAND } from './braid'

const path = (id: string, nodes: Node[] = []) => ({ id, chain: { bypass: false, nodes } }) as unknown as Path
const fork = (...paths: Path[]) => ({ id: 'f', paths }) as unknown as Fork

describe('the height of strands', () => {
  const inner = fork(path('q1'), path('q2'))
  const outer = fork(path('p1'), path('p2', [{ fork: inner } as Node]))
  it('adds up, forks in forks included', () => {
    expect(chainHeight([], () => true)).toBe(STRAND)
    expect(forkHeight(inner, () => true)).toBe(2 * STRAND + GAP)
    expect(chainHeight([{ fork: outer } as Node], () => true)).toBe(3 * STRAND + 2 * GAP)
    expect(forkHeight(outer, () => false)).toBe(2 * FOLDED + GAP)
  })
  it('puts every line in the middle of its strand', () => {
    expect(middles(outer, (p) => p.id !== 'p1')).toEqual([FOLDED / 2, FOLDED + GAP + (2 * STRAND + GAP) / 2])
  })
})
