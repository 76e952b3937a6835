import type { Thing } from '../api/types'
import { matching } from '../controls/matching'

/** How long a thing is, as one looks for it: each up to so many seconds. */
export const lengths = { short: 1, middle: 4, long: Infinity }
export type Length = keyof typeof lengths

export type Wanted = { text: string; kind: string; length: Length | ''; tempo: number }

const seconds = (t: Thing) => t.frames / t.kept.rate
const lengthOf = (t: Thing) =>
  (Object.keys(lengths) as Length[]).find((l) => seconds(t) <= lengths[l]) ?? 'long'

/** How far a tempo may be off to be the same, as a part of it. */
const NEAR = 0.04

/** What is looked for: by words, kind and length, and by the song's tempo, where one is given. */
export function find(list: Thing[], w: Wanted): Thing[] {
  const here = list.filter(
    (t) =>
      (!w.kind || t.kind === w.kind) &&
      (!w.length || lengthOf(t) === w.length) &&
      (!w.tempo || Math.abs((t.tempo ?? 0) / w.tempo - 1) < NEAR),
  )
  return matching(
    here.map((t) => ({ ...t, from: `${t.from.project ?? ''} ${t.from.row ?? ''}` })),
    w.text,
    ['name', 'tags', 'says', 'pitch', 'from'],
  ).map((x) => here.find((t) => t.id === x.id)!)
}
