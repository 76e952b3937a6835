import type { CSSProperties } from 'react'
import type { Channel, Worked } from '../api/types'
import { findNode, idOf, shownChain } from '../document/chain'
import { inWords } from '../clips/worked'
import { change } from '../session/changes'
import { nameOf, rowOf } from '../session/selected'
import { useSession } from '../session/store'
import { view } from '../session/view'

/* The line of a row: what stands before it is printed behind the music, what stands after it is live. */

/** How the print of a row stands; nothing, where nothing is printed of it, or nothing of it sounds. */
export const useLineWork = (row: string): Worked | undefined =>
  useSession((s) => s.worked.find((w) => w.row === row))

/** Stages before the line lie under the water: their cards have its tint. */
export const UNDER = { '--card': 'var(--shoal-3)' } as CSSProperties

/** Whether what is heard is the print. */
export const holds = (w: Worked | undefined) => w?.state === 'done'

/** The place of the last printed node in a chain that is shown, or -1. */
export function lineIndex(c: Channel): number {
  const { owner, chain } = shownChain(c, view().trials)
  return c.waterline && owner === c.id ? chain.nodes.findIndex((n) => idOf(n) === c.waterline) : -1
}

/** How it stands, in words. */
export function lineWords(w: Worked | undefined): string {
  if (!w) return 'nothing sounds there yet'
  switch (w.state) {
    case 'done':
      return 'holds'
    case 'waiting':
      return 'has changed: it runs, and is printed anew in a moment'
    case 'running':
      return `it runs while it is printed, ${Math.round(w.progress * 100)} %`
    case 'asked':
      return 'has changed: it runs until you print it again'
    case 'cancelled':
      return 'called off: it runs'
    default:
      return inWords(w)
  }
}

/** Puts the line of its row behind a node. */
export const putLine = (node: string) =>
  change(`Print ${rowOf(node)?.name ?? 'the row'} as far as ${nameOf(node)}`, {
    type: 'waterline.put',
    do: { node },
  })

/** Puts the line behind so many nodes of a row's own chain; behind none it is lifted. */
export function moveLine(c: Channel, count: number) {
  const last = c.chain.nodes[count - 1]
  return last ? idOf(last) !== c.waterline && putLine(idOf(last)) : liftLine(c)
}

export const liftLine = (c: Channel) =>
  c.waterline &&
  change(`Lift the line of ${c.name}`, { type: 'channel.set', do: { id: c.id, waterline: '' } })

/** Puts the line behind the selected node, or takes it away from there. */
export function toggleLine(node: string) {
  const row = findNode(useSession.getState().project, node)?.channel
  if (row?.waterline === node) return liftLine(row)
  return putLine(node)
}

/** Whether a change before the line is followed by a print, or waits until somebody asks for it. */
export const printWhenAsked = (c: Channel, asked: boolean) =>
  change(asked ? `Print ${c.name} only when asked` : `Print ${c.name} by itself`, {
    type: 'channel.set',
    do: { id: c.id, printWhenAsked: asked },
  })
