import { useSession } from '../session/store'
import { useTellable } from '../remarks/useTellable'

export type Narrowed = { person?: string; row?: string; kind?: string }

const kinds = {
  rows: 'rows',
  stages: 'stages and what moves them',
  forks: 'forks',
  sends: 'sends',
  clips: 'clips and takes',
  lines: 'lines',
  song: 'sections, tempo, passages',
  prints: 'prints',
  remarks: 'remarks',
}

/** Only what somebody did, on one row, or of one kind. */
export function Narrow({ by, onBy }: { by: Narrowed; onBy: (by: Narrowed) => void }) {
  const me = useSession((s) => s.me)
  const rows = useSession((s) => s.project!.channels)
  const people = useTellable()
  const all = me ? [{ person: me.id, name: `${me.name} (you)` }, ...people] : people
  const pick = (label: string, key: keyof Narrowed, every: string, list: [string, string][]) => (
    <select
      className="select select-sm min-w-0 grow"
      aria-label={label}
      value={by[key] ?? ''}
      onChange={(e) => onBy({ ...by, [key]: e.target.value || undefined })}
    >
      <option value="">{every}</option>
      {list.map(([value, text]) => (
        <option key={value} value={value}>
          {text}
        </option>
      ))}
    </select>
  )
  return (
    <div className="mb-1.5 flex shrink-0 gap-2">
      {pick(
        'By whom',
        'person',
        'By everybody',
        all.map((p) => [p.person, p.name]),
      )}
      {pick(
        'On which row',
        'row',
        'On all rows',
        rows.map((c) => [c.id, c.name]),
      )}
      {pick('Of which kind', 'kind', 'Of every kind', Object.entries(kinds))}
    </div>
  )
}
