import type { EffectInfo } from '../api/types'

const key = 'shoal.recent'

/** A list of ids that this browser remembers; what is no such list counts for nothing. */
function remembered(key: string): string[] {
  try {
    const list = JSON.parse(localStorage.getItem(key) ?? '[]') as unknown
    return Array.isArray(list) ? list.filter((x): x is string => typeof x === 'string') : []
  } catch {
    return []
  }
}

export const recent = () => remembered(key)

export function remember(id: string) {
  localStorage.setItem(key, JSON.stringify([id, ...recent().filter((x) => x !== id)].slice(0, 3)))
}

const liked = 'shoal.favourites'

export const favourites = () => remembered(liked)

export function toggleFavourite(id: string): string[] {
  const now = favourites()
  const next = now.includes(id) ? now.filter((x) => x !== id) : [...now, id]
  localStorage.setItem(liked, JSON.stringify(next))
  return next
}

export type Family = { name: string; effects: EffectInfo[] }

/** Favourites, recent ones, then families in order; while searching, the best matches first. */
export function search(
  effects: EffectInfo[],
  text: string,
  recents: string[],
  likes: string[] = [],
): Family[] {
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
  const best = likes.flatMap((id) => effects.filter((e) => e.id === id))
  if (best.length) families.push({ name: 'Favourites', effects: best })
  const last = recents.filter((id) => !likes.includes(id)).flatMap((id) => effects.filter((e) => e.id === id))
  if (last.length) families.push({ name: 'Recent', effects: last })
  for (const e of effects) {
    if (last.includes(e) || best.includes(e)) continue
    const f = families.find((x) => x.name === e.family)
    if (f) f.effects.push(e)
    else families.push({ name: e.family, effects: [e] })
  }
  return families
}
