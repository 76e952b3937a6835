import { useState } from 'react'
import { api } from '../api/client'
import type { PrintPoint } from '../api/types'
import { Card } from '../controls/Card'
import { refused, useSession } from '../session/store'
import { setView } from '../session/view'
import { RangePick, Toggle, useSpan } from './picks'

/** Prints one point of a row's signal, or what comes back of it, to a track of its own. */
export function PointDialog({ channel, point }: { channel: string; point: PrintPoint }) {
  const project = useSession((s) => s.project)!
  const row = project.channels.find((c) => c.id === channel)
  const [range, setRange] = useState('song')
  const [tail, setTail] = useState(true)
  const span = useSpan(range)
  if (!row) return null
  const start = async () => {
    try {
      await api.POST('/api/projects/{id}/prints', {
        params: { path: { id: project.id } },
        body: { channel, ...span, tail, target: 'track', mute: false, point },
      })
      setView({ dialog: null })
    } catch (e) {
      refused(e)
    }
  }
  return (
    <Card title={`Print ${row.name}, ${point.says}`} width={460}>
      <form
        className="flex max-w-[520px] flex-col gap-1.5 text-label"
        onSubmit={(e) => {
          e.preventDefault()
          void start()
        }}
      >
        <RangePick range={range} onPick={setRange} />
        <Toggle text="With its tail, until it has died away" on={tail} onTurn={setTail} />
        <p className="soft text-small">
          The print stands on a new track below {row.name}, muted: what it holds is heard already.
        </p>
        <button data-first className="btn btn-primary btn-sm self-start">
          Print
        </button>
      </form>
    </Card>
  )
}
