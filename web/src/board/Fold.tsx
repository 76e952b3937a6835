import type { Node } from '../api/types'
import { Hover } from '../controls/Hover'
import { idOf } from '../document/chain'
import { NodeChip } from './NodeChip'

/** Stages for which there is no room: a count, which opens. */
export function Fold(p: { nodes: Node[]; first: number; channel: string; owner: string }) {
  return (
    <Hover
      label={`${p.nodes.length} more`}
      panel={() =>
        p.nodes.map((n, i) => (
          <NodeChip
            key={idOf(n)}
            node={n}
            channel={p.channel}
            owner={p.owner}
            index={p.first + i}
            chainOff={false}
            size="full"
          />
        ))
      }
    >
      {(open) => (
        <button
          aria-expanded={open}
          className="h-[24px] min-w-[24px] rounded-[2px] border px-1 text-small whitespace-nowrap"
          aria-label={`${p.nodes.length} more`}
          style={{ background: 'var(--card)', borderColor: 'var(--deep)' }}
        >
          +{p.nodes.length}
        </button>
      )}
    </Hover>
  )
}
