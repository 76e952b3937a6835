import { useQueries } from '@tanstack/react-query'
import type { Movable, Passage } from '../api/types'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'
import * as passages from './actions'

/** Lets a passage move one more parameter of its rows. */
export function AddMove({ passage }: { passage: Passage }) {
  const revision = useSession((s) => s.revision)
  const channels = useSession((s) => s.project!.channels)
  const found = useQueries({
    queries: passage.rows.map((row) => ({
      queryKey: ['movables', row, revision],
      queryFn: () => theEngine()!.ask('movables', { id: row }),
      retry: false,
    })),
  })
  const all = found.flatMap((q, i) =>
    (q.data ?? []).map((m: Movable) => ({
      m,
      row: channels.find((c) => c.id === passage.rows[i])?.name ?? '',
    })),
  )
  return (
    <select
      className="select select-xs w-full shrink-0"
      aria-label="Move something more"
      value=""
      onChange={(e) => {
        const { m } = all[Number(e.target.value)]!
        void passages.moveAlso(passage, m.owner, m.name, `${m.label} of ${m.of}`)
      }}
    >
      <option value="">Move something more…</option>
      {all.map(({ m, row }, i) => (
        <option key={`${m.owner} ${m.name}`} value={i}>
          {m.of === row ? `${row}: ${m.label}` : `${row}: ${m.of}, ${m.label}`}
        </option>
      ))}
    </select>
  )
}
