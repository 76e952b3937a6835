import type { Preset } from '../api/types'
import { holding, matching } from '../controls/matching'

/** The presets for a place, those that match what was typed and the tag that was chosen. */
export function find(list: Preset[], kind: string, effect: string, text: string, tag: string): Preset[] {
  const here = list.filter(
    (p) => p.kind === kind && (kind !== 'stage' || p.effect === effect) && (!tag || p.tags.includes(tag)),
  )
  return matching(here, text, by)
}

const by: (keyof Preset & string)[] = ['name', 'tags', 'says']

/** A name that no preset goes by, as it is to be kept; what only comes near is another. */
export const freshName = (list: Preset[], text: string) => (holding(list, text, by).length ? '' : text.trim())

export function tagsOf(list: Preset[]): string[] {
  const count = new Map<string, number>()
  for (const p of list) for (const t of p.tags) count.set(t, (count.get(t) ?? 0) + 1)
  return [...count.entries()].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0])).map(([t]) => t)
}
