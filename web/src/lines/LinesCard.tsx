import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { matching } from '../controls/matching'
import { SideList } from '../controls/SideList'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'
import { setView } from '../session/view'
import * as lines from './actions'

/** Everything of a row that a line can move, to be searched; those that have a line first. */
export function LinesCard({ row }: { row: string }) {
  const name = useSession(
    (s) =>
      s.project?.channels.flatMap((c) => (c.id === row ? [`on ${c.name}`] : []))[0] ??
      (s.project?.treatments?.some((t) => t.id === row) ? 'in the treatment' : ''),
  )
  const revision = useSession((s) => s.revision)
  const [text, setText] = useState('')
  const { data } = useQuery({
    queryKey: ['movables', row, revision],
    queryFn: () => theEngine()!.ask('movables', { id: row }),
    retry: false,
  })
  const found = matching(data ?? [], text, ['label', 'of']).sort((a, b) => Number(b.line) - Number(a.line))
  const shut = () => setView({ dialog: null })
  return (
    <SideList
      label="Lines"
      onClose={shut}
      onKey={(e) => {
        const first = found[0]
        if (e.key !== 'Enter' || !first || (e.target as HTMLElement).tagName === 'BUTTON') return
        e.preventDefault()
        shut()
        void lines.openLine(first.owner, first.name, `${first.label} of ${first.of}`)
      }}
      head={<span>What moves {name}</span>}
      foot="Enter opens the first line under its row. Double click puts a point there."
    >
      <input
        autoFocus
        className="input input-sm w-full shrink-0"
        placeholder="Search: level, frequency, bypass…"
        aria-label="Search parameters"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <div className="mt-2 min-h-0 overflow-y-auto" role="list" aria-label="Parameters">
        {found.slice(0, 200).map((m) => (
          <button
            key={`${m.owner} ${m.name}`}
            className="flex min-h-6 w-full items-baseline gap-2 px-2 py-1 text-left text-label hover:bg-[var(--shoal-2)]"
            onClick={() => {
              shut()
              void lines.openLine(m.owner, m.name, `${m.label} of ${m.of}`)
            }}
          >
            <span className="font-semibold">{m.label}</span>
            <span className="soft truncate text-small">{m.of}</span>
            {m.line && <span className="water-label ml-auto text-small">has a line</span>}
          </button>
        ))}
        {data && found.length === 0 && <p className="soft p-2">Nothing here goes by “{text}”.</p>}
      </div>
    </SideList>
  )
}
