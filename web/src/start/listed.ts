import type { Listed } from '../api/types'
import { matching } from '../controls/matching'

/** In which order projects are listed. */
export const orders = {
  changed: { text: 'last changed', by: (a: Listed, b: Listed) => (a.changed < b.changed ? 1 : -1) },
  name: { text: 'name', by: (a: Listed, b: Listed) => a.name.localeCompare(b.name) },
  made: { text: 'made', by: (a: Listed, b: Listed) => (a.created < b.created ? 1 : -1) },
  length: {
    text: 'length',
    by: (a: Listed, b: Listed) => (b.chart?.seconds ?? 0) - (a.chart?.seconds ?? 0),
  },
}
export type Order = keyof typeof orders

/** The projects that go by some words (their names, sections, rows, and who changed them), in an order. */
export function listed(all: Listed[], words: string, order: Order): Listed[] {
  const told = all.map((p) => ({
    p,
    name: p.name,
    by: p.by,
    within: [...(p.chart?.sections ?? []), ...(p.chart?.rows ?? [])].map((x) => x.name),
  }))
  const found = words.trim() ? matching(told, words, ['name', 'by', 'within']) : told
  return found.map((x) => x.p).sort(orders[order].by)
}

/** What a project is, in figures. */
export function figures(p: Listed): string {
  const c = p.chart
  if (!c) return 'It cannot be read by this Shoal: a newer one may have made it.'
  const n = c.rows.length
  const rows = `${n} ${n === 1 ? 'row' : 'rows'}`
  const long = `${Math.floor(c.seconds / 60)}:${String(Math.floor(c.seconds % 60)).padStart(2, '0')}`
  return c.seconds >= 1 ? `${long} · ${rows}` : `${rows}, no sound yet`
}
