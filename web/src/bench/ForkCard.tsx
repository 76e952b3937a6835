import type { Channel, Fork } from '../api/types'
import { ForkGlyph } from '../board/ForkGlyph'
import { NameField } from '../controls/NameField'
import { useView } from '../session/view'
import { cardProps, useCard } from './card'
import { useForkWords } from '../session/outline'
import { setForkNode } from './forks'

type Props = { fork: Fork; channel: Channel; owner: string; index: number; off: boolean }

/** The head of a fork on the bench: what it is, where its strands begin. */
export function ForkCard({ fork, channel, owner, index, off }: Props) {
  const { title, kind } = useForkWords(fork)
  const renaming = useView((v) => v.renaming === fork.id)
  const look = useCard(fork.id, off)
  return (
    <div
      {...cardProps(fork.id, channel.id, owner, index, !renaming)}
      aria-pressed={look.pressed}
      aria-label={`${title}, ${fork.paths.length} paths${off ? ', bypassed' : ''}${look.listened ? ', listened to' : ''}, place ${index + 1}`}
      className="flex h-[42px] w-[74px] shrink-0 flex-col justify-between rounded-[3px] border px-1.5 py-0.5"
      style={look.style}
    >
      {renaming ? (
        <NameField
          name={fork.name}
          label="Name of the fork"
          onName={(name) => void setForkNode(fork, { name }, 'Rename')}
        />
      ) : (
        <span className={`truncate text-small font-semibold ${off ? 'struck soft' : ''}`} title={title}>
          {fork.name || 'Fork'}
        </span>
      )}
      <span className="soft flex items-center gap-1 text-small whitespace-nowrap">
        <ForkGlyph paths={fork.paths.length} />
        {kind}
      </span>
    </div>
  )
}
