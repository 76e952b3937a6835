import type { Channel, Node } from '../api/types'
import { ForkGlyph } from '../board/ForkGlyph'
import { stageName } from '../document/chain'
import { useSession } from '../session/store'
import { cardProps, useCard } from './card'

type Props = { node: Node; channel: Channel; owner: string; index: number; off: boolean }

/** A stage or fork on a strand that is not open: its name only. */
export function StrandChip({ node, channel, owner, index, off }: Props) {
  const effects = useSession((s) => s.effects)
  const of = (node.stage ?? node.fork)!
  const name = node.stage
    ? stageName(node.stage, effects)
    : node.fork!.name || `${node.fork!.paths.length} paths`
  const hollow = off || of.bypass
  const look = useCard(of.id, hollow)
  return (
    <span
      {...cardProps(of.id, channel.id, owner, index, true)}
      aria-pressed={look.pressed}
      aria-label={`${name}${hollow ? ', bypassed' : ''}${look.listened ? ', listened to' : ''}, place ${index + 1}`}
      className={`flex h-6 items-center gap-1 rounded-[3px] border px-1.5 text-small whitespace-nowrap ${hollow ? 'struck soft' : ''}`}
      style={look.style}
    >
      {node.fork && <ForkGlyph paths={node.fork.paths.length} />}
      {name}
    </span>
  )
}
