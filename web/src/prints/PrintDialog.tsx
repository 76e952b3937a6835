import { useState } from 'react'
import { api } from '../api/client'
import type { PrintSpec } from '../api/types'
import { Card } from '../controls/Card'
import { refused, useSession } from '../session/store'
import { setView, useView } from '../session/view'

const formats = [
  ['wav24', 'WAV, 24 bit with dither'],
  ['wav16', 'WAV, 16 bit with dither'],
  ['wav32f', 'WAV, 32 bit float'],
  ['flac24', 'FLAC, 24 bit'],
  ['flac16', 'FLAC, 16 bit'],
] as const

/** What to print, and where it goes. */
export function PrintDialog({ channel, target }: { channel: string; target: 'track' | 'file' }) {
  const project = useSession((s) => s.project)!
  const timeline = useSession((s) => s.timeline)
  const loop = useView((v) => v.loop)
  const row = project.channels.find((c) => c.id === channel)
  const [range, setRange] = useState('song')
  const [tail, setTail] = useState(true)
  const [mute, setMute] = useState(true)
  const [format, setFormat] = useState<(typeof formats)[number][0]>('wav24')
  if (!row || !timeline) return null
  const section = timeline.sections.find((s) => s.id === range)
  const span = range === 'range' && loop ? loop : (section ?? { from: 0, to: timeline.end })
  const start = async () => {
    const spec: PrintSpec = {
      channel,
      from: Math.round(span.from),
      to: Math.round(span.to),
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
          ? `Print ${row.name} to a new track`
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
        <label className="flex min-h-6 items-center justify-between gap-3">
          What
          <select
            className="select select-sm w-[260px]"
            value={range}
            onChange={(e) => setRange(e.target.value)}
          >
            <option value="song">The whole song</option>
            {timeline.sections.map((s) => (
              <option key={s.id} value={s.id}>
                Section {s.name}
              </option>
            ))}
            {loop && <option value="range">The range: {loop.name}</option>}
          </select>
        </label>
        <label className="flex min-h-6 items-center justify-between gap-3">
          With its tail, until it has died away
          <input
            type="checkbox"
            className="toggle toggle-sm"
            checked={tail}
            onChange={(e) => setTail(e.target.checked)}
          />
        </label>
        {target === 'track' ? (
          <>
            <label className="flex min-h-6 items-center justify-between gap-3">
              Mute {row.name}, so that it is not heard twice
              <input
                type="checkbox"
                className="toggle toggle-sm"
                checked={mute}
                onChange={(e) => setMute(e.target.checked)}
              />
            </label>
            <p className="soft text-small">
              The print is taken after the chain and before the fader. The new track takes over level, pan,
              sends and output, so the mix stays as it is.
            </p>
          </>
        ) : (
          <label className="flex min-h-6 items-center justify-between gap-3">
            Format
            <select
              className="select select-sm w-[260px]"
              value={format}
              onChange={(e) => setFormat(e.target.value as typeof format)}
            >
              {formats.map(([v, name]) => (
                <option key={v} value={v}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        )}
        <button data-first className="btn btn-primary btn-sm self-start">
          {target === 'track' ? 'Print' : 'Export'}
        </button>
      </form>
    </Card>
  )
}
