import type { Node } from '../api/types'

/* How much room a chain takes on its row, in pixels, and what of it folds where there is too little. */

/** A node with its picture, its name, and the figure behind it. */
const whole = (n: Node) =>
  82 + (n.stage ? n.stage.name || n.stage.effect : n.fork!.name || '2 paths').length * 7.2

/** A stage without its name; a fork keeps that. */
const narrow = (n: Node) => (n.fork ? Math.min(whole(n) - 16, 260) : 72)

/** What stands for those that are folded away. */
const FOLD = 58

/** Whether all nodes have room with their names; else how many of them fold, in the middle, and from which on. The first and the
    last stay. */
export function foldTo(nodes: Node[], room: number): { full: boolean; from: number; count: number } {
  if (nodes.reduce((w, n) => w + whole(n), 0) <= room) return { full: true, from: 0, count: 0 }
  const all = nodes.reduce((w, n) => w + narrow(n), 0)
  if (all <= room) return { full: false, from: 0, count: 0 }
  for (let count = 1; ; count++) {
    const from = Math.ceil((nodes.length - count) / 2)
    const gone = nodes.slice(from, from + count).reduce((w, n) => w + narrow(n), 0)
    if (all - gone + FOLD <= room || nodes.length - count <= 2) return { full: false, from, count }
  }
}
