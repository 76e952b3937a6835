import { useState } from 'react'
import { Card } from '../controls/Card'
import { useSession } from '../session/store'
import { setView } from '../session/view'
import { InPlace } from './InPlace'
import { first, printRow, type RowPrint } from './ofRow'
import { FormatPick, RangePick, Toggle } from './picks'

/** What to print, and where it goes. */
export function PrintDialog({ channel, target }: { channel: string; target: 'track' | 'file' }) {
  const project = useSession((s) => s.project)!
  const ready = useSession((s) => s.timeline !== null)
  const row = project.channels.find((c) => c.id === channel)
  const [by, setBy] = useState(first)
  const set = (some: Partial<RowPrint>) => setBy({ ...by, ...some })
  if (!row || !ready) return null
  const start = async () => {
    if (await printRow(row, target, by)) setView({ dialog: null })
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
        <RangePick range={by.range} onPick={(range) => set({ range })} />
        {target === 'track' && (
          <label className="flex min-h-6 items-center justify-between gap-3">
            Where to
            <select
              className="select select-sm w-[220px]"
              value={by.place}
              onChange={(e) => set({ place: e.target.value as RowPrint['place'] })}
            >
              <option value="track">A new track beside it</option>
              <option value="here">Where its clips stand</option>
            </select>
          </label>
        )}
        {by.place === 'track' && (
          <Toggle
            text="With its tail, until it has died away"
            on={by.tail}
            onTurn={(tail) => set({ tail })}
          />
        )}
        {by.place === 'here' ? (
          <InPlace how={by.how} onSet={(x) => set({ how: { ...by.how, ...x } })} />
        ) : target === 'track' ? (
          <>
            <Toggle
              text={`Mute ${row.name}, so that it is not heard twice`}
              on={by.mute}
              onTurn={(mute) => set({ mute })}
            />
            <p className="soft text-small">
              The print is taken after the chain and before the fader. The new track takes over level, pan,
              sends and output, so the mix stays as it is.
            </p>
          </>
        ) : (
          <FormatPick format={by.format} onPick={(format) => set({ format })} />
        )}
        <button data-first className="btn btn-primary btn-sm self-start">
          {target === 'track' ? 'Print' : 'Export'}
        </button>
      </form>
    </Card>
  )
}
