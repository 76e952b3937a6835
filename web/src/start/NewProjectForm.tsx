import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api } from '../api/client'
import type { Summary, Template } from '../api/types'
import { Modal } from '../controls/Modal'
import { refused } from '../session/store'

type Props = { onMade: (p: Summary) => void; onClose: () => void }

/** Makes a project: what it begins with, its name, its rate, its tempo. */
export function NewProjectForm({ onMade, onClose }: Props) {
  const { data: templates = [] } = useQuery({
    queryKey: ['templates'],
    queryFn: () => answer(api.GET('/api/templates')),
  })
  const [from, setFrom] = useState<Template | null>(null)
  const make = (f: FormData) => {
    const [beats, unit] = (f.get('meter') as string).split('/').map(Number)
    answer(
      api.POST('/api/projects', {
        body: {
          name: f.get('name') as string,
          sampleRate: Number(f.get('rate')),
          tempo: Number(f.get('tempo')),
          beats: beats || 0,
          unit: unit || 0,
          template: from?.id,
        },
      }),
    ).then(onMade, refused)
  }
  return (
    <Modal title="New project" width={640} onClose={onClose}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault()
          make(new FormData(e.currentTarget))
        }}
      >
        <label>
          Name
          <input name="name" required maxLength={80} autoFocus className="input w-full" />
        </label>
        <fieldset className="flex flex-col gap-1.5">
          <legend className="mb-1">What it begins with</legend>
          <Choice name="Nothing" says="Only its main output." on={!from} onPick={() => setFrom(null)} />
          {templates.map((t) => (
            <Choice
              key={t.id}
              name={t.name}
              says={t.says}
              rows={t.rows}
              on={from?.id === t.id}
              onPick={() => setFrom(t)}
            />
          ))}
        </fieldset>
        <Figures key={from?.id} from={from} />
        <button className="btn btn-primary self-start">Make it</button>
      </form>
    </Modal>
  )
}

function Choice(p: { name: string; says: string; rows?: string[]; on: boolean; onPick: () => void }) {
  return (
    <label
      className="flex cursor-pointer gap-2.5 rounded border p-2"
      style={{ borderColor: p.on ? 'var(--ink)' : 'var(--hair)', background: 'var(--card)' }}
    >
      <input type="radio" name="from" className="radio radio-sm mt-0.5" checked={p.on} onChange={p.onPick} />
      <span>
        <span className="font-semibold">{p.name}</span> <span className="soft">{p.says}</span>
        {p.on && p.rows && <span className="water-label block text-small">{p.rows.join(' · ')}</span>}
      </span>
    </label>
  )
}

function Figures({ from }: { from: Template | null }) {
  return (
    <div className="grid grid-cols-3 gap-3">
      <label>
        Sample rate
        <select name="rate" defaultValue="48000" className="select select-sm w-full">
          {[44100, 48000, 88200, 96000].map((r) => (
            <option key={r} value={r}>
              {r / 1000} kHz
            </option>
          ))}
        </select>
      </label>
      <label>
        Tempo
        <input
          name="tempo"
          type="number"
          step="0.1"
          min={10}
          max={400}
          defaultValue={from?.tempo ?? 100}
          required
          className="figure input input-sm w-full"
        />
      </label>
      <label>
        Meter
        <input
          name="meter"
          defaultValue={from ? `${from.beats}/${from.unit}` : '4/4'}
          pattern="\d+/\d+"
          required
          className="figure input input-sm w-full"
        />
      </label>
    </div>
  )
}
