import type { EffectInfo } from '../api/types'

const key = 'shoal.recent'

export const recent = (): string[] => JSON.parse(localStorage.getItem(key) ?? '[]') as string[]

export function remember(id: string) {
  localStorage.setItem(key, JSON.stringify([id, ...recent().filter((x) => x !== id)].slice(0, 3)))
}

export type Family = { name: string; effects: EffectInfo[] }

/** Families in order, recent ones above; while searching, the best matches first. */
export function search(effects: EffectInfo[], text: string, recents: string[]): Family[] {
  const t = text.trim().toLowerCase()
  if (t) {
    const score = (e: EffectInfo) => {
      if (e.name.toLowerCase().startsWith(t)) return 4
      if (e.synonyms.some((s) => s.startsWith(t))) return 3
      if (e.name.toLowerCase().includes(t) || e.synonyms.some((s) => s.includes(t))) return 2
      return e.says.toLowerCase().includes(t) || e.family.toLowerCase().includes(t) ? 1 : 0
    }
    const found = effects.filter((e) => score(e) > 0).sort((a, b) => score(b) - score(a))
    return found.length ? [{ name: 'Found', effects: found }] : []
  }
  const families: Family[] = []
  const last = recents.flatMap((id) => effects.filter((e) => e.id === id))
  if (last.length) families.push({ name: 'Recent', effects: last })
  for (const e of effects) {
    if (last.includes(e)) continue
    const f = families.find((x) => x.name === e.family && x.name !== 'Recent')
    if (f) f.effects.push(e)
    else families.push({ name: e.family, effects: [e] })
  }
  return families
}
