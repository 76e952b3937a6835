import type { Fork, Node, Path } from '../api/types'

/* Where the strands of a chain lie: pure figures, so that the lines between them meet. */

/** From the top of a chain to the middle of its stages. */
export const LINE = 18
/** The head of a strand: its name, its level, listening. */
export const HEAD = 26
/** A stage with its plumbs, their figures beside them. */
export const HUNG = 84
export const GAP = 4

/** Which paths show their stages, and which forks in forks their paths. */
export type Open = (x: Path | Fork) => boolean

/** What stands in the height under the head of a strand. */
const below = (p: Path, open: Open): number =>
  open(p) && p.chain.nodes.length > 0 ? chainHeight(p.chain.nodes, open) : 0

/** What a chain needs in height: as much as its highest node. */
export const chainHeight = (nodes: Node[], open: Open): number =>
  Math.max(HUNG, ...nodes.map((n) => (n.fork && isOpen(n.fork, open) ? forkHeight(n.fork, open) : 0)))

/** A fork opens in its place when one of its paths does. */
export const isOpen = (f: Fork, open: Open) => open(f) || f.paths.some(open)

export const strandHeight = (p: Path, open: Open): number => HEAD + below(p, open)

export const forkHeight = (f: Fork, open: Open): number =>
  f.paths.reduce((h, p) => h + strandHeight(p, open) + GAP, -GAP)

/** The line of each strand of a fork, from its top: through its stages, or where there are none, its head. */
export function lines(f: Fork, open: Open): number[] {
  let top = 0
  return f.paths.map((p) => {
    const at = top + (below(p, open) > 0 ? HEAD + LINE : HEAD / 2)
    top += strandHeight(p, open) + GAP
    return at
  })
}

/** A line from the middle of one side to a strand on the other. */
export const fan = (from: number, to: number, w: number) =>
  `M0 ${from}C${w / 2} ${from} ${w / 2} ${to} ${w} ${to}`
