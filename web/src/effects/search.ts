import type { EffectInfo } from '../api/types'
import { holding, matching } from '../controls/matching'
import { setView, view } from '../session/view'

export const recent = () => view().recent

export const remember = (id: string) =>
  setView({ recent: [id, ...recent().filter((x) => x !== id)].slice(0, 3) })

export const favourites = () => view().favourites

export function toggleFavourite(id: string): string[] {
  const now = favourites()
  setView({ favourites: now.includes(id) ? now.filter((x) => x !== id) : [...now, id] })
  return favourites()
}

export type Family = { name: string; effects: EffectInfo[] }

const by: (keyof EffectInfo & string)[] = ['name', 'synonyms', 'family', 'says']

/** Whether an effect holds all that was typed, and none only comes near to it. */
export const held = (effects: EffectInfo[], text: string) => holding(effects, text, by).length > 0

/** Favourites, recent ones, then families in order; while searching, the best matches first. */
export function search(
  effects: EffectInfo[],
  text: string,
  recents: string[],
  likes: string[] = [],
): Family[] {
  if (text.trim()) {
    const found = matching(effects, text, by)
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
