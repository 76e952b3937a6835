import type { EffectInfo, Preset } from '../api/types'
import { holding } from '../controls/matching'
import { along, idOf } from '../document/chain'
import { drop } from '../presets/actions'
import { rowOf, select } from '../session/selected'
import { entryOf } from './entry'
import type { Family } from './search'

/* Presets stand in the list of effects too: an effect with its setting, a whole chain or a fork is one thing to find. */

const PRESET = 'preset '

/** The preset that an entry of the list stands for; empty: it is an effect. */
export const presetOf = (id: string) => (id.startsWith(PRESET) ? id.slice(PRESET.length) : '')

/** A preset as an entry of the list, and what it is of: an effect, a chain, or a fork. */
export type PresetEntry = EffectInfo & { of: string }

/** Presets as entries of the list: those of stages say of which effect they are. */
export const presetEntries = (presets: Preset[], effects: EffectInfo[]): PresetEntry[] =>
  presets
    .filter((p) => p.kind !== 'channel')
    .map((p) => {
      const of = effects.find((e) => e.id === p.effect)?.name ?? (p.kind === 'fork' ? 'Fork' : 'Chain')
      const entry = entryOf({
        id: PRESET + p.id,
        name: p.name,
        family: 'Presets',
        says: `${of}. ${p.says}`,
        synonyms: [...p.tags, of],
      })
      return { ...entry, of: p.effect || p.kind }
    })

/** The presets that hold what was typed; as many as can be looked through. */
export const foundPresets = (entries: EffectInfo[], text: string) =>
  text.trim() ? holding(entries, text, ['name', 'synonyms', 'says']).slice(0, 12) : []

/** Adds a preset to a chain at a place, and puts what came first on the bench: its id; empty: nothing came. */
export async function addPreset(preset: string, owner: string, index: number) {
  const ids = () => [...along(rowOf(owner)?.chain.nodes ?? [])].map(idOf)
  const before = ids()
  if (!(await drop(preset, owner, index))) return ''
  const made = ids().find((id) => !before.includes(id))
  const row = rowOf(owner)
  if (made && row) select(row.id, made)
  return made ?? ''
}

/** What presets are of that is no effect, and what those are called. */
export const ofWholes = [
  ['chain', 'Presets of whole chains'],
  ['fork', 'Presets of forks'],
] as const

/** The presets of an effect, of chains or of forks, as a part of the list. */
export function presetsOf(entries: PresetEntry[], of: string, effects: EffectInfo[]): Family[] {
  const whole = ofWholes.find(([kind]) => kind === of)?.[1]
  const name = whole ?? `Presets of ${effects.find((e) => e.id === of)?.name ?? ''}`
  return [{ name, effects: entries.filter((p) => p.of === of) }]
}
