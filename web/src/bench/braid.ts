import type { Fork, Node, Path } from '../api/types'

/* How high the strands of a chain are drawn: pure figures, so that the lines between them meet. */

export const STRAND = 42
export const FOLDED = 26
export const GAP = 3

type Open = (p: Path) => boolean

/** What a chain needs in height: as much as its highest fork. */
export const chainHeight = (nodes: Node[], open: Open): number =>
  Math.max(STRAND, ...nodes.map((n) => (n.fork ? forkHeight(n.fork, open) : 0)))

export const strandHeight = (p: Path, open: Open): number =>
  open(p) ? chainHeight(p.chain.nodes, open) : FOLDED

export const forkHeight = (f: Fork, open: Open): number =>
  f.paths.reduce((h, p) => h + strandHeight(p, open) + GAP, -GAP)

/** The middle of each strand of a fork, from its top. */
export function middles(f: Fork, open: Open): number[] {
  let top = 0
  return f.paths.map((p) => {
    const h = strandHeight(p, open)
    const middle = top + h / 2
    top += h + GAP
    return middle
  })
}

/** A line from the middle of one side to a strand on the other. */
export const fan = (from: number, to: number, w: number) =>
  `M0 ${from}C${w / 2} ${from} ${w / 2} ${to} ${w} ${to}`
