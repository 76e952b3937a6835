import type { EffectInfo } from '../api/types'

/** An entry of the list of effects that is no effect by itself: a fork, or a preset. */
export const entryOf = (
  of: Pick<EffectInfo, 'id' | 'name' | 'family' | 'says' | 'synonyms'>,
): EffectInfo => ({
  ...of,
  version: 1,
  newest: 1,
  params: [],
  plumbs: [],
  mix: 100,
  mixLaw: 'blend',
  live: [],
  keyed: false,
})
