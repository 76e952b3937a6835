import { type KeyOption, matchSorter, rankings } from 'match-sorter'

/** What goes by the words that were typed, the best first. The first keys weigh the most; every word must be found,
    and where nothing is, a word whose letters come in their order is near enough, and then one with a letter wrong. */
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

/** What comes near to the words that were typed. */
export function nearTo<T>(list: T[], text: string, keys: (string & keyof T)[]): T[] {
  const words = wordsOf(text)
  if (words.join('').length < 3) return []
  const goesBy = (x: T, word: string) =>
    keys.some((k) => {
      const texts = [x[k]].flat()
      return texts.some((t) => String(t).toLowerCase().includes(word)) || mistyped(word, texts)
    })
  const near = sorted(list, text, keys, rankings.MATCHES)
  return near.length ? near : list.filter((x) => words.every((w) => goesBy(x, w)))
}

/** Whether a word of four letters and more begins one of some texts' words, but for a letter that is missing, too many, another
    one, or in the place of its neighbour. */
function mistyped(word: string, texts: unknown[]): boolean {
  if (word.length < 4) return false
  const all = texts.flatMap((t) => String(t).toLowerCase().split(/\W+/))
  return all.some((t) => [-1, 0, 1].some((d) => oneOff(word, t.slice(0, word.length + d))))
}

function oneOff(a: string, b: string): boolean {
  let i = 0
  while (i < a.length && a[i] === b[i]) i++
  const swapped = a[i] === b[i + 1] && a[i + 1] === b[i] && a.slice(i + 2) === b.slice(i + 2)
  if (a.length === b.length) return a.slice(i + 1) === b.slice(i + 1) || swapped
  return a.length > b.length ? a.slice(i + 1) === b.slice(i) : a.slice(i) === b.slice(i + 1)
}
