import { expect, test } from 'vitest'
import type { Preset } from '../api/types'
import { find, tagsOf } from './find'

const preset = (name: string, kind: Preset['kind'], effect: string, tags: string[]): Preset => ({
  version: 1,
  id: name,
  kind,
  effect,
  name,
  says: `For ${tags.join(' and ')}.`,
  tags,
  shipped: true,
  unknown: [],
  body: { mix: 100, fader: 0, pan: 0, stereo: true, soloSafe: false, tint: 0 },
})
const list = [
  preset('Wall slap', 'stage', 'delay', ['short', 'voice']),
  preset('Over the basin', 'stage', 'delay', ['long']),
  preset('Quay wall', 'stage', 'limiter', ['safe']),
  preset('Far away', 'chain', '', ['long']),
]

test('presets are found by kind, effect, words and tag', () => {
  expect(find(list, 'stage', 'delay', '', '').map((p) => p.name)).toEqual(['Wall slap', 'Over the basin'])
  expect(find(list, 'stage', 'delay', 'wall voice', '').map((p) => p.name)).toEqual(['Wall slap'])
  expect(find(list, 'stage', 'delay', '', 'long').map((p) => p.name)).toEqual(['Over the basin'])
  expect(find(list, 'chain', '', 'AWAY', '').map((p) => p.name)).toEqual(['Far away'])
})

test('tags come in the order of their use', () => {
  expect(tagsOf(list)).toEqual(['long', 'safe', 'short', 'voice'])
})
