import { tints } from '../theme/tints'

/** The first letters of the first two words of a name, or of the one there is. */
export function initials(name: string): string {
  const [first = '', second = ''] = name.trim().split(/\s+/)
  const letters = second ? [...first].slice(0, 1).concat([...second].slice(0, 1)) : [...first].slice(0, 2)
  return letters.join('') || '?'
}

/** The colour that a person has in every window. */
export function tintOf(id: string): string {
  let sum = 0
  for (const letter of id) sum = (sum * 31 + letter.codePointAt(0)!) >>> 0
  return tints[1 + (sum % (tints.length - 1))]!
}
