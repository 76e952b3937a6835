import type { PrintPoint } from '../api/types'
import type { findFork, findNode } from '../document/chain'
import type { Listening } from '../engine/ring'

type Heard = { listening: Listening | null; share: string }
type Found = {
  found: ReturnType<typeof findNode>
  heard: NonNullable<ReturnType<typeof findFork>>[]
  name: string
}

/** What is listened to, as a point that can be printed; null: it is none. */
export function pointHeard(
  { listening, share }: Heard,
  { found, heard, name }: Found,
): { channel: string; point: PrintPoint } | null {
  if (share) return { channel: share, point: { share: true, says: 'what comes back' } }
  if (found && listening?.node && !listening.change && !listening.key) {
    const channel = found.channel.id
    return {
      channel,
      point: { tap: { channel, point: 'after', node: listening.node }, says: `after ${name}` },
    }
  }
  const path = heard.length === 1 ? heard[0]!.path : undefined
  if (!path) return null
  const channel = heard[0]!.channel.id
  return { channel, point: { tap: { channel, point: 'path', node: path.id }, says: `path ${path.name}` } }
}
