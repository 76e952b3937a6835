import { type KeyOption, matchSorter, rankings } from 'match-sorter'

/** What goes by the words that were typed, the best first. The first keys weigh the most; every word must be found,
    and where nothing is, one with a letter wrong is near enough, and then one whose letters come in their order. */
export function matching<T>(list: T[], text: string, keys: (string & keyof T)[]): T[] {
  const found = holding(list, text, keys)
  return found.length ? found : nearTo(list, text, keys)
}

const wordsOf = (text: string) => text.trim().toLowerCase().split(/\s+/).filter(Boolean)

function sorted<T>(
  list: T[],
  text: string,
  keys: (string & keyof T)[],
  threshold: (typeof rankings)[keyof typeof rankings],
): T[] {
  const small = keys.map(
    (k): KeyOption<T> =>
      (x) =>
        [x[k]].flat().map((v) => String(v).toLowerCase()),
  )
  return wordsOf(text).reduceRight((left, word) => matchSorter(left, word, { keys: small, threshold }), list)
}

/** What holds every word that was typed, the best first. */
export const holding = <T>(list: T[], text: string, keys: (string & keyof T)[]): T[] =>
  sorted(list, text, keys, rankings.CONTAINS)

/** What comes near to the words that were typed: with a letter wrong, what begins with it first; else what has their letters
    in that order (in a long sentence nearly everything has). */
export function nearTo<T>(list: T[], text: string, keys: (string & keyof T)[]): T[] {
  const words = wordsOf(text)
  if (words.join('').length < 3) return []
  const placed = list.map((x) => ({ x, at: Math.max(...words.map((w) => placeOf(x, w, keys))) }))
  const near = placed.filter((p) => p.at < Infinity).sort((a, b) => a.at - b.at)
  return near.length ? near.map((p) => p.x) : sorted(list, text, keys, rankings.MATCHES)
}

/** How far behind a word stands, mistyped or not, in what something goes by; infinitely far where it does not. */
function placeOf<T>(x: T, word: string, keys: (string & keyof T)[]): number {
  const texts = keys.flatMap((k) => [x[k]].flat().map((t) => String(t).toLowerCase()))
  const at = texts.flatMap((t) => t.split(/\W+/)).findIndex((w) => w.includes(word) || mistyped(word, w))
  return at < 0 ? Infinity : at
}

/** Whether a word of four letters and more begins another one, but for a letter that is missing, too many, another one, or in the
    place of its neighbour. */
const mistyped = (word: string, other: string): boolean =>
  word.length >= 4 && [-1, 0, 1].some((d) => oneOff(word, other.slice(0, word.length + d)))

function oneOff(a: string, b: string): boolean {
  let i = 0
  while (i < a.length && a[i] === b[i]) i++
  const swapped = a[i] === b[i + 1] && a[i + 1] === b[i] && a.slice(i + 2) === b.slice(i + 2)
  if (a.length === b.length) return a.slice(i + 1) === b.slice(i + 1) || swapped
  return a.length > b.length ? a.slice(i + 1) === b.slice(i) : a.slice(i) === b.slice(i + 1)
}
