import type { Channel } from '../api/types'
import { TideMeter } from '../controls/TideMeter'
import { fold } from '../routing/gestures'
import { select, selectAlso } from '../session/selected'
import { useSession } from '../session/store'
import { toggleSolo } from '../session/transport'
import { setView, useView } from '../session/view'
import { Diamond } from '../soundings/Diamond'
import { over } from '../status/Protection'
import { tints } from '../theme/tints'
import { Lamp } from './Lamp'
import { RowMenu } from './RowMenu'
import { RowName } from './RowName'
import { carriedRow, carry } from './carry'
import { moveRow, toggleMute } from './rows'

/** How wide the heads of rows are. */
export const HEAD = 168

type Props = {
  channel: Channel
  index: number
  low: boolean
  /** How many groups it stands in. */
  depth: number
  /** What the selected row's signal has to do with it. */
  lit: 'feeds' | 'fed' | ''
}

export function RowHead({ channel, index, low, depth, lit }: Props) {
  const renaming = useView((v) => v.renaming === channel.id)
  const folded = useView((v) => v.folded.includes(channel.id))
  const trip = useSession((s) => (s.trip?.row === channel.id ? s.trip : null))
  const soloed = useView((v) => v.solo.includes(channel.id))
  return (
    <div
      className="relative flex h-full shrink-0 flex-col justify-between py-1.5 pr-2"
      data-lit={lit || undefined}
      style={{
        width: HEAD,
        paddingLeft: 12 + depth * 7,
        background: lit ? 'var(--shoal-1)' : undefined,
        borderRight: '1px solid var(--hair)',
        boxShadow: `inset 3px 0 0 ${tints[channel.tint] ?? 'transparent'}`,
      }}
      draggable={channel.kind !== 'main' && !renaming}
      onDragStart={(e) => carry(e, { row: channel.id })}
      onDragOver={(e) => carriedRow() && e.preventDefault()}
      onDrop={(e) => {
        const id = carriedRow()
        if (!id) return
        const box = e.currentTarget.getBoundingClientRect()
        moveRow(id, e.clientY > box.top + box.height / 2 ? index + 1 : index)
      }}
    >
      <div className="flex items-center gap-1">
        {renaming ? (
          <RowName channel={channel} />
        ) : (
          <>
            {channel.kind === 'group' && (
              <button
                className="soft -my-1 -ml-2 h-[24px] w-[24px] shrink-0 text-small"
                aria-expanded={!folded}
                aria-label={`${folded ? 'Unfold' : 'Fold'} ${channel.name}`}
                onClick={(e) => {
                  e.stopPropagation()
                  fold(channel.id)
                }}
              >
                {folded ? '▸' : '▾'}
              </button>
            )}
            <button
              className="line-clamp-2 min-w-0 text-left text-label leading-[14px] font-semibold wrap-anywhere"
              onClick={(e) => {
                if (!e.shiftKey && !e.ctrlKey && !e.metaKey) return select(channel.id)
                e.stopPropagation()
                selectAlso(channel.id, e.shiftKey)
              }}
              onDoubleClick={() => setView({ renaming: channel.id })}
              title={channel.name}
            >
              {channel.name}
            </button>
            <span className="soft ml-auto text-small">
              {channel.kind === 'return' || channel.kind === 'group' ? channel.kind : ''}
            </span>
            <span className="-my-1">
              <Diamond at={[channel.id]} />
            </span>
            <RowMenu channel={channel} />
          </>
        )}
      </div>
      <div className={`flex items-center gap-1.5 ${low ? '' : 'mb-0.5'}`}>
        {trip ? (
          <span className="figure grow text-small font-bold" style={{ color: 'var(--loss)' }}>
            muted: {over(trip.peak)}
          </span>
        ) : (
          <TideMeter point={`post ${channel.id}`} />
        )}
        {channel.kind !== 'main' && (
          <>
            <Lamp
              on={channel.mute}
              label={`Mute ${channel.name}`}
              text="M"
              onClick={() => void toggleMute(channel)}
            />
            <Lamp
              on={soloed}
              label={`Solo ${channel.name}`}
              text="S"
              onClick={(e) => toggleSolo(channel.id, e.shiftKey)}
            />
          </>
        )}
      </div>
    </div>
  )
}
