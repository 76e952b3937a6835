import type { Preset } from '../api/types'

/** The presets for a place, those that match what was typed and the tag that was chosen. */
export function find(list: Preset[], kind: string, effect: string, text: string, tag: string): Preset[] {
  const words = text.trim().toLowerCase().split(/\s+/).filter(Boolean)
  return list.filter((p) => {
    if (p.kind !== kind || (kind === 'stage' && p.effect !== effect)) return false
    if (tag && !p.tags.includes(tag)) return false
    const all = `${p.name} ${p.says} ${p.tags.join(' ')}`.toLowerCase()
    return words.every((w) => all.includes(w))
  })
}

export function tagsOf(list: Preset[]): string[] {
  const count = new Map<string, number>()
  for (const p of list) for (const t of p.tags) count.set(t, (count.get(t) ?? 0) + 1)
  return [...count.entries()].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0])).map(([t]) => t)
}
