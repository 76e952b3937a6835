import type { Channel, Send } from '../api/types'
import { Hover } from '../controls/Hover'
import { select } from '../session/selected'
import { SendChip } from './SendChip'

/** The sends behind the first: they can be read, and dragged to other rows, as it can. */
export function MoreSends({ channel, sends }: { channel: Channel; sends: Send[] }) {
  return (
    <Hover
      label={`${sends.length} more sends of ${channel.name}`}
      panel={() => sends.map((s) => <SendChip key={s.id} send={s} channel={channel} />)}
    >
      {(open) => (
        <button
          aria-expanded={open}
          className="water-label h-[24px] min-w-[24px] text-small"
          onClick={() => select(channel.id)}
        >
          +{sends.length}
        </button>
      )}
    </Hover>
  )
}
