import type { Arrival, Channel } from '../api/types'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { HearMenu } from './HearMenu'
import { LEAD } from './own'

/** How loud what arrives at a row is before its chain: a bar with marks at -18 and -6 dB, and words. */
export function InputSays({ channel }: { channel: Channel }) {
  const ready = useSession((s) => channel.id in s.ready)
  const device = useView((v) => v.inputDevice)
  if (!ready) return null
  return (
    <>
      <Arriving row={channel.id} stands={channel.records !== 'own' || device === LEAD} />
      <HearMenu channel={channel} />
    </>
  )
}

const part = (db: number) => `${Math.max(0, Math.min(100, ((db + 60) / 60) * 100)).toFixed(1)}%`

/** A stand-in is silent while the song stands. */
function Arriving({ row, stands }: { row: string; stands: boolean }) {
  const now = useSession((s) => s.arriving[row])
  const gone = useSession((s) => s.recording?.gone.includes(row) ?? false)
  const playing = useView((v) => v.playing) || !stands
  const bad = gone || (playing && !!now?.state)
  const hot = now?.state === 'hot'
  return (
    <span className="flex shrink-0 items-center gap-1.5" data-testid="input-says">
      <i style={{ color: 'var(--live)' }}>In</i>
      <span className="relative h-[7px] w-[92px]" style={{ background: 'var(--card)' }} aria-hidden>
        <span
          className="absolute inset-y-0 left-0"
          style={{
            width: part(playing ? (now?.peak ?? -120) : -120),
            background: hot ? 'var(--loss)' : 'var(--live)',
          }}
        />
        {[-18, -6].map((db) => (
          <span
            key={db}
            className="absolute -inset-y-0.5 w-px"
            style={{ left: part(db), background: 'var(--ink)' }}
          />
        ))}
      </span>
      <span className={bad ? 'font-bold' : 'figure'} style={{ color: bad ? 'var(--caution)' : undefined }}>
        {gone ? 'the input has gone' : playing ? inWords(now) : 'plays when the song does'}
      </span>
    </span>
  )
}

function inWords(a: Arrival | undefined): string {
  if (a?.state === 'hot') return 'too hot: it clips'
  if (a?.state === 'silent') return 'nothing comes in'
  return `${(a?.held ?? -120).toFixed(1).replace('-', '−')} dB`
}
