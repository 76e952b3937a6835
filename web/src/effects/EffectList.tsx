import { useMemo, useRef, useState } from 'react'
import type { EffectInfo } from '../api/types'
import * as act from '../live/actions'
import { useSession } from '../live/session'
import { setView } from '../live/view'
import { carry } from '../board/carry'
import { recent, remember, search } from './search'

/** The list of effects: families, search with synonyms, recent ones first. It does not cover the board, so that an effect can be dragged onto a chain. */
export function EffectList({ owner, index, replace }: { owner: string; index: number; replace?: string }) {
  const effects = useSession((s) => s.effects)
  const row = useSession((s) => s.project?.channels.find((c) => c.id === owner)?.name)
  const [text, setText] = useState('')
  const [at, setAt] = useState(0)
  const input = useRef<HTMLInputElement>(null)
  const found = useMemo(() => search(effects, text, recent()), [effects, text])
  const shut = () => setView({ dialog: null })
  const take = (e: EffectInfo, off: boolean) => {
    remember(e.id)
    shut()
    if (replace) void act.replaceStage(replace, e)
    else void act.addStage(e, owner, index, off)
  }
  const flat = found.flatMap((g) => g.effects)
  const chosen = flat[Math.min(at, flat.length - 1)]
  return (
    <section
      role="dialog"
      aria-label="Effects"
      className="fixed top-[86px] right-4 z-40 flex max-h-[76vh] w-[360px] flex-col rounded border p-3 shadow-lg"
      style={{ background: 'var(--card)', borderColor: 'var(--deep)' }}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Escape') shut()
        if (e.key === 'ArrowDown') setAt(Math.min(at + 1, flat.length - 1))
        if (e.key === 'ArrowUp') setAt(Math.max(at - 1, 0))
        if (e.key === 'Enter' && chosen) take(chosen, e.shiftKey)
        if (['ArrowDown', 'ArrowUp', 'Enter'].includes(e.key)) e.preventDefault()
      }}
    >
      <div className="mb-2 flex items-center justify-between text-[12px]">
        <span>{replace ? 'Replace the stage by' : `Add to ${row ?? 'the chain'}, place ${index + 1}`}</span>
        <button className="btn btn-xs btn-ghost" onClick={shut}>
          Close
        </button>
      </div>
      <input
        ref={input}
        autoFocus
        className="input input-sm w-full"
        placeholder="Search: echo, warm, level…"
        aria-label="Search effects"
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          setAt(0)
        }}
      />
      <div className="mt-2 min-h-0 overflow-y-auto" role="listbox" aria-label="Effects">
        {found.map((g) => (
          <div key={g.name} className="mb-2">
            <div className="water-label text-[12px]">{g.name}</div>
            {g.effects.map((e) => (
              <button
                key={g.name + e.id}
                role="option"
                aria-selected={e === chosen}
                draggable
                className="block w-full rounded-[2px] px-2 py-1 text-left"
                style={e === chosen ? { background: 'var(--shoal-2)' } : undefined}
                onClick={(ev) => take(e, ev.shiftKey)}
                onDragStart={(ev) => {
                  remember(e.id)
                  carry(ev, { effect: e.id })
                }}
              >
                <span className="font-semibold">{e.name}</span>
                <span className="soft block text-[12px]">{e.says}</span>
              </button>
            ))}
          </div>
        ))}
        {flat.length === 0 && <p className="soft p-2">No effect goes by “{text}”.</p>}
      </div>
      <p className="soft mt-1 text-[11px]">
        Enter adds it, Shift Enter adds it switched off. Or drag it onto a chain.
      </p>
    </section>
  )
}
