import { tints } from '../theme/tints'

/** The first letters of the first two words of a name, or of the one there is. */
export function initials(name: string): string {
  const [first = '', second = ''] = name.trim().split(/\s+/)
  const letters = second ? [...first].slice(0, 1).concat([...second].slice(0, 1)) : [...first].slice(0, 2)
  return letters.join('') || '?'
}

const given = new Map<string, string>()

/** The colour that a person has: by their id, so that it is mostly the same in every window, but nobody's else in this one while
    there are any left. */
export function tintOf(id: string): string {
  const has = given.get(id)
  if (has) return has
  const taken = new Set(given.values())
  const own = tints.slice(1)
  let sum = 0
  for (const letter of id) sum = (sum * 31 + letter.codePointAt(0)!) >>> 0
  const from = sum % own.length
  const order = [...own.slice(from), ...own.slice(0, from)]
  const tint = order.find((t) => !taken.has(t)) ?? order[0]!
  given.set(id, tint)
  return tint
}
