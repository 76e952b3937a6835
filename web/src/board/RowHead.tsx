import type { Channel } from '../api/types'
import { TideMeter } from '../controls/TideMeter'
import { fold } from '../routing/gestures'
import { select, selectAlso } from '../session/selected'
import { useSession } from '../session/store'
import { toggleSolo } from '../session/transport'
import { setView, useView } from '../session/view'
import { Diamond } from '../soundings/Diamond'
import { over } from '../status/Protection'
import { toggleReady } from '../takes/recording'
import { tints } from '../theme/tints'
import { InHand } from './InHand'
import { Lamp } from './Lamp'
import { RemarkMark } from '../remarks/RemarkMark'
import { Others } from './Others'
import { RowMenu } from './RowMenu'
import { RowName } from './RowName'
import { carriedRow, carry } from './carry'
import { moveRow, toggleMute } from './rows'

type Props = {
  channel: Channel
  index: number
  /** It keeps to a line. */
  line: boolean
  /** How many groups it stands in. */
  depth: number
  /** What the selected row's signal has to do with it. */
  lit: 'feeds' | 'fed' | ''
}

export function RowHead({ channel, index, line, depth, lit }: Props) {
  const renaming = useView((v) => v.renaming === channel.id)
  const folded = useView((v) => v.folded.includes(channel.id))
  const trip = useSession((s) => (s.trip?.row === channel.id ? s.trip : null))
  const ready = useSession((s) => channel.id in s.ready)
  const soloed = useView((v) => v.solo.includes(channel.id))
  const gathers = channel.kind === 'return' || channel.kind === 'group'
  const width = useView((v) => v.headWidth)
  return (
    <div
      className="relative flex h-full shrink-0 gap-1 pr-1"
      data-lit={lit || undefined}
      style={{
        width,
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
      <div className="flex h-full min-w-0 flex-1 flex-col justify-between">
        <div className="flex min-w-0 items-start gap-1 pt-0.5">
          {channel.kind === 'group' && !renaming && (
            <button
              className="soft -my-1 -ml-2.5 h-6 w-6 shrink-0 text-small"
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
          {renaming ? (
            <RowName channel={channel} />
          ) : (
            <button
              className={`min-h-6 min-w-0 pt-0.5 text-left text-label leading-[14px] font-semibold wrap-anywhere ${line ? 'line-clamp-1' : 'line-clamp-2'}`}
              onClick={(e) => {
                if (!e.shiftKey && !e.ctrlKey && !e.metaKey) return select(channel.id)
                e.stopPropagation()
                selectAlso(channel.id, e.shiftKey)
              }}
              onDoubleClick={() => setView({ renaming: channel.id })}
              title={channel.name}
              aria-label={channel.name}
            >
              {channel.name}
              {gathers && <span className="soft text-small font-normal"> {channel.kind}</span>}{' '}
              <InHand channel={channel} />
            </button>
          )}
        </div>
        {!line && (
          <span className="flex h-4 shrink-0 items-center pb-1">
            {trip ? (
              <span className="figure text-small leading-3 font-bold" style={{ color: 'var(--loss)' }}>
                muted: {over(trip.peak)}
              </span>
            ) : (
              <TideMeter point={`post ${channel.id}`} />
            )}
          </span>
        )}
      </div>
      <div className="flex h-full flex-col items-end justify-between">
        <span className="flex h-6">
          <Others row={channel.id} />
          <RemarkMark row={channel.id} />
          <Diamond at={[channel.id]} />
          <RowMenu channel={channel} />
        </span>
        {!line && channel.kind !== 'main' && (
          <span className="flex gap-0.5">
            <Lamp
              on={channel.mute}
              label={`Mute ${channel.name}`}
              text="M"
              onClick={() => void toggleMute(channel)}
            />
            {channel.records && (
              <Lamp
                on={ready}
                live
                label={`${ready ? 'No longer' : 'Make'} ${channel.name} ready to be recorded`}
                text="In"
                onClick={() => toggleReady(channel)}
              />
            )}
            <Lamp
              on={soloed}
              label={`Solo ${channel.name}`}
              text="S"
              onClick={(e) => toggleSolo(channel.id, e.shiftKey)}
            />
          </span>
        )}
      </div>
    </div>
  )
}
