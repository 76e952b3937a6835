import { describe, expect, it } from 'vitest'
import type { Chain, EffectInfo, Node, Project } from '../api/types'
import { along, holds, idOf, olderSounds, onward } from './chain'

const stage = (id: string) => ({ stage: { id } }) as Node
const fork = (id: string, ...paths: [string, Node[]][]) =>
  ({
    fork: { id, paths: paths.map(([p, nodes]) => ({ id: p, chain: { bypass: false, nodes } })) },
  }) as unknown as Node

// a ─ f ┬ p1: b c        ┬ d
//       ├ p2: (nothing)  │
//       └ p3: g ┬ q1: e ┬ ┘
//               └ q2:   ┘
const chain = {
  bypass: false,
  nodes: [
    stage('a'),
    fork(
      'f',
      ['p1', [stage('b'), stage('c')]],
      ['p2', []],
      ['p3', [fork('g', ['q1', [stage('e')]], ['q2', []])]],
    ),
    stage('d'),
  ],
} as Chain

describe('the way through a chain', () => {
  it('goes along the signal, into a fork and out of it', () => {
    const way = ['a']
    for (let at = 'a'; (at = onward(chain, at, 'right'));) way.push(at)
    expect(way).toEqual(['a', 'f', 'p1', 'b', 'c', 'd'])
    expect(onward(chain, 'p2', 'right')).toBe('d')
    expect(onward(chain, 'e', 'right')).toBe('d')
  })
  it('comes back the same way on a path, and past a fork from behind it', () => {
    const back = (from: string) => onward(chain, from, 'left')
    expect(['c', 'b', 'p1', 'f', 'a', 'd', 'g', 'q1'].map(back)).toEqual([
      'b',
      'p1',
      'f',
      'a',
      '',
      'f',
      'p3',
      'g',
    ])
  })
  it('goes across the paths, to the same place where there is one', () => {
    expect(onward(chain, 'b', 'down')).toBe('p2')
    expect(onward(chain, 'p2', 'down')).toBe('p3')
    expect(onward(chain, 'p3', 'up')).toBe('p2')
    expect(onward(chain, 'p1', 'up')).toBe('f')
    expect(onward(chain, 'e', 'down')).toBe('q2')
    expect(onward(chain, 'q1', 'up')).toBe('g')
    expect(onward(chain, 'p3', 'down')).toBe('p3')
    expect(onward(chain, 'a', 'down')).toBe('')
  })
  it('lists every node and knows what holds what', () => {
    expect([...along(chain.nodes)].map(idOf)).toEqual(['a', 'f', 'b', 'c', 'g', 'e', 'd'])
    expect(holds(chain.nodes, 'q2')).toBe(true)
    expect(holds(chain.nodes, 'x')).toBe(false)
  })
})

describe('older sounds', () => {
  const effects = [
    { id: 'hall', version: 1, newest: 2 },
    { id: 'hall', version: 2, newest: 2 },
    { id: 'trim', version: 1, newest: 1 },
  ] as EffectInfo[]
  const made = (id: string, effect: string, version: number) => ({ stage: { id, effect, version } }) as Node
  it('are found in rows, in trials, in paths and in treatments, and nothing else is', () => {
    const p = {
      channels: [
        {
          id: 'a',
          chain: { nodes: [made('old', 'hall', 1), made('new', 'hall', 2), made('only', 'trim', 1)] },
          trials: [{ id: 't', chain: { nodes: [made('tried', 'hall', 1)] } }],
        },
        { id: 'b', chain: { nodes: [fork('f', ['p', [made('in a path', 'hall', 1)]])] }, trials: [] },
      ],
      treatments: [{ id: 'x', name: 'x', chain: { nodes: [made('in a piece', 'hall', 1)] } }],
    } as unknown as Project
    expect(olderSounds(p, effects).map((s) => s.id)).toEqual(['old', 'tried', 'in a path', 'in a piece'])
  })
})
