import { answer, api } from '../api/client'
import type { Summary } from '../api/types'
import { refused } from '../session/store'

export function NewProjectForm({ onMade }: { onMade: (p: Summary) => void }) {
  return (
    <form
      className="mb-6 grid grid-cols-5 items-end gap-3 border p-4"
      style={{ borderColor: 'var(--hair)', background: 'var(--card)' }}
      onSubmit={(e) => {
        e.preventDefault()
        const f = new FormData(e.currentTarget)
        const [beats, unit] = (f.get('meter') as string).split('/').map(Number)
        answer(
          api.POST('/api/projects', {
            body: {
              name: f.get('name') as string,
              sampleRate: Number(f.get('rate')),
              tempo: Number(f.get('tempo')),
              beats: beats || 0,
              unit: unit || 0,
            },
          }),
        ).then(onMade, refused)
      }}
    >
      <label className="col-span-2 text-small">
        Name
        <input name="name" required maxLength={80} autoFocus className="input input-sm w-full" />
      </label>
      <label className="text-small">
        Sample rate
        <select name="rate" defaultValue="48000" className="select select-sm w-full">
          {[44100, 48000, 88200, 96000].map((r) => (
            <option key={r} value={r}>
              {r / 1000} kHz
            </option>
          ))}
        </select>
      </label>
      <label className="text-small">
        Tempo
        <input
          name="tempo"
          type="number"
          step="0.1"
          min={10}
          max={400}
          defaultValue={100}
          required
          className="figure input input-sm w-full"
        />
      </label>
      <label className="text-small">
        Meter
        <input
          name="meter"
          defaultValue="4/4"
          pattern="\d+/\d+"
          required
          className="figure input input-sm w-full"
        />
      </label>
      <button className="btn btn-primary btn-sm">Make it</button>
    </form>
  )
}
