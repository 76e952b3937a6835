import { useState } from 'react'
import type { Channel } from '../api/types'
import { matching } from '../controls/matching'
import { SideList } from '../controls/SideList'
import { openSendOf } from '../routing/gestures'
import { change } from '../session/changes'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'

/** Every row, to be found, hidden and shown, several at once. */
export function RowsCard() {
  const channels = useSession((s) => s.project!.channels)
  const selected = useView((v) => v.channel)
  const [text, setText] = useState('')
  const [chosen, setChosen] = useState<string[]>([])
  const found = matching(channels, text, ['name', 'kind'])
  const some = channels.filter((c) => chosen.includes(c.id) && c.kind !== 'main')
  const hide = (rows: Channel[], hidden: boolean) =>
    void change(
      `${hidden ? 'Hide' : 'Show'} ${rows.length === 1 ? rows[0]!.name : `${rows.length} rows`}`,
      ...rows.map((c) => ({ type: 'channel.set' as const, do: { id: c.id, hidden } })),
    )
  return (
    <SideList
      label="Rows"
      width={520}
      head={`${channels.length} rows`}
      foot="Enter goes to the first. What is hidden is heard all the same."
      onClose={() => setView({ dialog: null })}
      onKey={(e) => {
        if (e.key !== 'Enter' || !found[0] || (e.target as HTMLElement).tagName === 'BUTTON') return
        e.preventDefault()
        select(found[0].id)
        setView({ dialog: null })
      }}
    >
      <div className="flex shrink-0 gap-1.5">
        <input
          autoFocus
          className="input input-sm w-full"
          placeholder="Search: drum, return…"
          aria-label="Search rows"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        {some.length > 0 && (
          <>
            <button className="btn btn-sm btn-outline font-normal" onClick={() => hide(some, true)}>
              Hide {some.length}
            </button>
            <button className="btn btn-sm btn-outline font-normal" onClick={() => hide(some, false)}>
              Show
            </button>
            <button
              className="btn btn-sm btn-outline font-normal"
              onClick={() => openSendOf(some.map((c) => c.id))}
            >
              Send …
            </button>
          </>
        )}
      </div>
      <div className="mt-1.5 grid min-h-0 grid-cols-2 gap-x-3 overflow-y-auto" role="list" aria-label="Rows">
        {found.map((c) => (
          <div key={c.id} role="listitem" className="flex h-7 items-center gap-1.5">
            <input
              type="checkbox"
              className="checkbox h-6 w-6 shrink-0"
              aria-label={`Choose ${c.name}`}
              checked={chosen.includes(c.id)}
              onChange={(e) =>
                setChosen(e.target.checked ? [...chosen, c.id] : chosen.filter((x) => x !== c.id))
              }
            />
            <button
              className={`h-6 min-w-0 flex-1 truncate text-left text-label ${c.id === selected ? 'font-bold' : ''} ${c.hidden ? 'soft italic' : ''}`}
              onClick={() => select(c.id)}
            >
              {c.name} <span className="soft text-small font-normal">{c.kind === 'track' ? '' : c.kind}</span>
            </button>
            {c.kind !== 'main' && (
              <button
                className="btn btn-xs btn-ghost font-normal"
                aria-label={`${c.hidden ? 'Show' : 'Hide'} ${c.name}`}
                onClick={() => hide([c], !c.hidden)}
              >
                {c.hidden ? 'show' : 'hide'}
              </button>
            )}
          </div>
        ))}
      </div>
    </SideList>
  )
}
