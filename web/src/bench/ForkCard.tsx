import type { Channel, Fork } from '../api/types'
import { ForkGlyph } from '../board/ForkGlyph'
import { NameField } from '../controls/NameField'
import { useForkWords } from '../session/outline'
import { useView } from '../session/view'
import { cardProps, useCard } from './card'
import { setForkNode } from './forks'

type Props = { fork: Fork; channel: Channel; owner: string; index: number; off: boolean; folded?: boolean }

/** Where a fork divides: its name and its kind; folded, how many paths it has. */
export function ForkCard({ fork, channel, owner, index, off, folded }: Props) {
  const { title, kind } = useForkWords(fork)
  const renaming = useView((v) => v.renaming === fork.id)
  const look = useCard(fork.id, off)
  const count = `${fork.paths.length} paths`
  return (
    <span
      {...cardProps(fork.id, channel.id, owner, index, !renaming)}
      aria-pressed={look.pressed}
      aria-expanded={!folded}
      aria-label={`${title}, ${count}${off ? ', bypassed' : ''}${look.listened ? ', listened to' : ''}, place ${index + 1}`}
      className="relative flex h-9 shrink-0 scroll-mx-12 items-center gap-2 rounded-[18px] border px-3"
      style={look.style}
    >
      <ForkGlyph paths={fork.paths.length} width={20} />
      {renaming ? (
        <NameField
          name={fork.name}
          label="Name of the fork"
          onName={(name) => void setForkNode(fork, { name }, 'Rename')}
        />
      ) : (
        <span className="flex flex-col leading-[14px] whitespace-nowrap">
          <span className={`text-label font-semibold ${off ? 'struck soft' : ''}`}>
            {fork.name || 'Fork'}
          </span>
          <span className="water-label text-small leading-3">{folded ? `${count} ▸` : kind}</span>
        </span>
      )}
    </span>
  )
}
