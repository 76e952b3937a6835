import type { Channel } from '../api/types'
import { ParamControl } from '../controls/ParamControl'
import { rowIn } from '../document/rows'
import { useTraced } from '../routing/traced'
import { useSession } from '../session/store'
import { Diamond } from '../soundings/Diamond'
import { MoreSends } from './MoreSends'
import { SendChip } from './SendChip'

/** How much level, sends and output keep at the right of a row. */
export const STRIP = 424

/** Hides the line of the signal behind figures, and nothing else. */
const plate = 'linear-gradient(transparent 32%, var(--shoal-1) 32% 68%, transparent 68%)'

/** Where a row goes: its level, its sends, its output. */
export function RowOut({ channel }: { channel: Channel }) {
  const strip = useSession((s) => s.strip)
  const traced = useTraced(channel.id)
  const out = useSession((s) => rowIn(s.project, channel.output)?.name)
  return (
    <div
      className="relative flex h-full shrink-0 items-center gap-3 pr-3"
      style={{ width: STRIP }}
      onClick={(e) => e.stopPropagation()}
    >
      <span className="absolute inset-x-0 top-1/2 h-px" style={{ background: 'var(--deep)' }} />
      <span
        className="relative w-[148px] px-1"
        style={{ background: plate, outline: traced === null ? undefined : '2px solid var(--ink)' }}
        data-traced={traced ?? undefined}
      >
        {strip && (
          <ParamControl
            owner={channel.id}
            param={strip.fader}
            value={channel.fader}
            of={channel.name}
            narrow
            label={`Level of ${channel.name}`}
          />
        )}
      </span>
      <span className="relative flex w-[156px] justify-start gap-1 overflow-hidden">
        {channel.sends.slice(0, 1).map((s) => (
          <span key={s.id} className="flex items-center">
            <SendChip send={s} channel={channel} />
            <Diamond at={[s.id]} />
          </span>
        ))}
        {channel.sends.length > 1 && <MoreSends channel={channel} sends={channel.sends.slice(1)} />}
      </span>
      <span
        className="relative w-[76px] truncate px-1"
        style={{ background: plate }}
        title={
          out ??
          (channel.kind === 'main'
            ? 'Nowhere else: this is the output'
            : 'No output: the row lives through its sends and taps')
        }
      >
        <span className="water-label text-label">{channel.kind === 'main' ? 'Out' : (out ?? 'nowhere')}</span>
      </span>
    </div>
  )
}
