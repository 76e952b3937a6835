import type { Node } from '../api/types'
import { ForkChip } from './ForkChip'
import { StageChip } from './StageChip'

type ChipProps = {
  node: Node
  channel: string
  owner: string
  index: number
  chainOff: boolean
  size: 'full' | 'small'
}

/** A stage or a fork on the board. */
export const NodeChip = ({ node, size, ...p }: ChipProps) =>
  node.stage ? <StageChip stage={node.stage} size={size} {...p} /> : <ForkChip fork={node.fork!} {...p} />
