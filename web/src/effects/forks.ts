import type { EffectInfo } from '../api/types'
import { entryOf } from './entry'

/** Empty forks stand in the list of effects as a family of their own. */
const entry = (id: string, name: string, says: string, synonyms: string[]): EffectInfo =>
  entryOf({
    id: `fork ${id}`,
    name,
    family: 'Forks',
    says,
    synonyms: ['fork', 'parallel', 'paths', 'split', ...synonyms],
  })

export const forkEntries: EffectInfo[] = [
  entry('copies', 'Fork: copies', 'Two paths that get the whole signal; the second starts switched off.', [
    'dry',
    'wet',
  ]),
  entry('leftright', 'Fork: left/right', 'One path for each side.', ['stereo', 'dual']),
  entry('midside', 'Fork: mid/side', 'One path for what both sides share, one for their difference.', [
    'stereo',
    'width',
  ]),
  ...[2, 3, 4, 5].map((n) =>
    entry(`bands ${n}`, `Fork: ${n} bands`, `${n} bands, parted by crossovers that can be moved.`, [
      'multiband',
      'crossover',
      'low',
      'high',
    ]),
  ),
]

/** The kind of fork that an entry of the list stands for, or null. */
export function forkOf(id: string): { kind: string; bands: number } | null {
  const [word, kind, bands] = id.split(' ')
  return word === 'fork' ? { kind: kind!, bands: Number(bands ?? 0) } : null
}
