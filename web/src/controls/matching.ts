import { type KeyOption, matchSorter, rankings } from 'match-sorter'

/** What goes by the words that were typed, the best first. The first keys weigh the most; every word must be found,
    and where nothing is, a word whose letters come in their order is near enough. */
export function matching<T>(list: T[], text: string, keys: (string & keyof T)[]): T[] {
  const words = text.trim().toLowerCase().split(/\s+/).filter(Boolean)
  const small = keys.map(
    (k): KeyOption<T> =>
      (x) =>
        [x[k]].flat().map((v) => String(v).toLowerCase()),
  )
  const find = (threshold: (typeof rankings)[keyof typeof rankings]) =>
    words.reduceRight((left, word) => matchSorter(left, word, { keys: small, threshold }), list)
  const found = find(rankings.CONTAINS)
  return found.length || words.join('').length < 3 ? found : find(rankings.MATCHES)
}
