import type { Channel } from '../api/types'
import { findNode, idOf, shownChain } from '../document/chain'
import { change } from '../session/changes'
import { nameOf, rowOf } from '../session/selected'
import { theProject } from '../session/store'
import { setView, view } from '../session/view'

/* The way in of a row: what stands before it is recorded, what stands behind it is only heard. */

/** The place of the last node that is recorded in a chain that is shown, or -1. */
export function wayInIndex(c: Channel): number {
  const { owner, chain } = shownChain(c, view().trials)
  return c.wayIn && owner === c.id ? chain.nodes.findIndex((n) => idOf(n) === c.wayIn) : -1
}

/** Puts the mark behind a node, or behind the fork in which that stands. */
export const putWayIn = (node: string) =>
  change(`Record ${rowOf(node)?.name ?? 'the row'} through ${nameOf(node)}`, {
    type: 'way-in.put',
    do: { node },
  })

/** Puts the mark behind so many nodes of a row's own chain; behind none it is taken away. */
export function moveWayIn(c: Channel, count: number) {
  const last = c.chain.nodes[count - 1]
  return last ? idOf(last) !== c.wayIn && putWayIn(idOf(last)) : removeWayIn(c)
}

/** Takes the mark away; where clips came in there, it is asked what becomes of them. */
export function removeWayIn(c: Channel) {
  if (!c.wayIn) return
  if (c.clips.some((x) => x.enters === 'wayIn')) return setView({ dialog: { kind: 'wayIn', row: c.id } })
  return takeAway(c, 'top')
}

/** Takes it away, and lets its clips go on in one way. */
export const takeAway = (c: Channel, clips: 'untouched' | 'behind' | 'top') =>
  change(`Take the way in of ${c.name} away`, { type: 'way-in.remove', do: { row: c.id, clips } })

/** Puts the mark behind the selected node, or takes it away from there. */
export function toggleWayIn(node: string) {
  const row = findNode(theProject(), node)?.channel
  if (row?.wayIn === node) return removeWayIn(row)
  return putWayIn(node)
}
