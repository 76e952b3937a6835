import { useState } from 'react'
import { api } from '../api/client'
import type { PrintSpec } from '../api/types'
import { printInPlace } from '../clips/permanent'
import { Card } from '../controls/Card'
import { refused, useSession } from '../session/store'
import { setView } from '../session/view'
import { type How, InPlace } from './InPlace'
import { type Format, FormatPick, RangePick, Toggle, useSpan } from './picks'

/** What to print, and where it goes. */
export function PrintDialog({ channel, target }: { channel: string; target: 'track' | 'file' }) {
  const project = useSession((s) => s.project)!
  const ready = useSession((s) => s.timeline !== null)
  const row = project.channels.find((c) => c.id === channel)
  const [range, setRange] = useState('song')
  const [tail, setTail] = useState(true)
  const [mute, setMute] = useState(true)
  const [how, setHow] = useState<How>({})
  const [place, setPlace] = useState<'track' | 'here'>('track')
  const [format, setFormat] = useState<Format>('wav24')
  const span = useSpan(range)
  if (!row || !ready) return null
  const start = async () => {
    if (target === 'track' && place === 'here') {
      setView({ dialog: null })
      return printInPlace(row.clips, range === 'song' ? undefined : span, how)
    }
    const spec: PrintSpec = {
      channel,
      ...span,
      tail,
      target,
      mute: target === 'track' && mute,
      format: target === 'file' ? format : undefined,
    }
    try {
      await api.POST('/api/projects/{id}/prints', { params: { path: { id: project.id } }, body: spec })
      setView({ dialog: null })
    } catch (e) {
      refused(e)
    }
  }
  return (
    <Card
      title={
        target === 'track'
          ? `Print ${row.name}`
          : `Export ${row.kind === 'main' ? 'the main output' : row.name}`
      }
      width={460}
    >
      <form
        className="flex max-w-[520px] flex-col gap-1.5 text-label"
        onSubmit={(e) => {
          e.preventDefault()
          void start()
        }}
      >
        <RangePick range={range} onPick={setRange} />
        {target === 'track' && (
          <label className="flex min-h-6 items-center justify-between gap-3">
            Where to
            <select
              className="select select-sm w-[220px]"
              value={place}
              onChange={(e) => setPlace(e.target.value as typeof place)}
            >
              <option value="track">A new track beside it</option>
              <option value="here">Where its clips stand</option>
            </select>
          </label>
        )}
        {place === 'track' && (
          <Toggle text="With its tail, until it has died away" on={tail} onTurn={setTail} />
        )}
        {place === 'here' ? (
          <InPlace how={how} onSet={(x) => setHow({ ...how, ...x })} />
        ) : target === 'track' ? (
          <>
            <Toggle text={`Mute ${row.name}, so that it is not heard twice`} on={mute} onTurn={setMute} />
            <p className="soft text-small">
              The print is taken after the chain and before the fader. The new track takes over level, pan,
              sends and output, so the mix stays as it is.
            </p>
          </>
        ) : (
          <FormatPick format={format} onPick={setFormat} />
        )}
        <button data-first className="btn btn-primary btn-sm self-start">
          {target === 'track' ? 'Print' : 'Export'}
        </button>
      </form>
    </Card>
  )
}
