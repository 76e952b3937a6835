import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api } from '../api/client'
import type { PassageKind } from '../api/types'
import { SideList } from '../controls/SideList'
import { useSession } from '../session/store'
import { setView } from '../session/view'
import * as passages from './actions'

/** Makes a passage of a range: which rows, and what is to happen to them. */
export function PassageCard(p: { from: number; to: number; name: string; rows: string[] }) {
  const channels = useSession((s) => s.project?.channels ?? [])
  const [rows, setRows] = useState(p.rows)
  const [text, setText] = useState('')
  const { data } = useQuery({
    queryKey: ['passage kinds'],
    queryFn: () => answer(api.GET('/api/passages')),
    staleTime: Infinity,
  })
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  const found = (data ?? []).filter((k) =>
    words.every((w) => `${k.name} ${k.tags} ${k.says}`.toLowerCase().includes(w)),
  )
  const make = (k: PassageKind) => void passages.make(k.id, p.from, p.to, rows)
  return (
    <SideList
      label="Make a passage"
      onClose={() => setView({ dialog: null })}
      onKey={(e) => {
        if (e.key !== 'Enter' || !found[0] || !(e.target instanceof HTMLInputElement)) return
        if (e.target.type === 'checkbox') return
        e.preventDefault()
        make(found[0])
      }}
      head={<span>A passage over {p.name}</span>}
      foot={
        rows.length === 0
          ? 'Choose at least one row first.'
          : 'Enter takes the first. What it needs is placed where it is missing, and said.'
      }
    >
      <fieldset className="shrink-0">
        <legend className="soft text-small">On these rows</legend>
        <div className="flex max-h-[92px] flex-wrap gap-x-3 gap-y-0.5 overflow-y-auto py-1">
          {channels.map((c) => (
            <label key={c.id} className="flex min-h-6 items-center gap-1 text-small">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={rows.includes(c.id)}
                onChange={(e) => setRows(e.target.checked ? [...rows, c.id] : rows.filter((x) => x !== c.id))}
              />
              {c.name}
            </label>
          ))}
        </div>
      </fieldset>
      <input
        autoFocus
        className="input input-sm mt-1 w-full shrink-0"
        placeholder="Search: stop, filter, wash…"
        aria-label="Search kinds of passages"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <div className="mt-2 min-h-0 overflow-y-auto" role="list" aria-label="Kinds of passages">
        {found.map((k) => (
          <div key={k.id} role="listitem">
            <button
              className="w-full px-2 py-1 text-left text-label hover:bg-[var(--shoal-2)] disabled:opacity-50"
              disabled={rows.length === 0}
              onClick={() => make(k)}
            >
              <span className="font-semibold">{k.name}</span>
              <span className="soft block text-small">{k.says}</span>
            </button>
          </div>
        ))}
        {data && found.length === 0 && <p className="soft p-2">No kind goes by “{text}”.</p>}
      </div>
    </SideList>
  )
}
