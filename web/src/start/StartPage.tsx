import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { answer, api } from '../api/client'
import { Me } from '../crew/Me'
import { startEarly } from '../engine/early'
import { refused } from '../session/store'
import { Notices } from '../status/Notices'
import { turnTheme } from '../theme/theme'
import { Begin } from './Begin'
import { Bin } from './Bin'
import { listed, type Order, orders } from './listed'
import { NameGate } from './NameGate'
import { ProjectCard } from './ProjectCard'

/** Until the engine of the project that is opened next begins, in ms: first the list is drawn. */
const BEFORE_ENGINE = 500

/** All projects, each as a small chart of itself, and what one can begin with. */
export function StartPage() {
  const client = useQueryClient()
  const { data, error } = useQuery({
    queryKey: ['projects'],
    queryFn: () => answer(api.GET('/api/projects')),
    refetchInterval: 10_000, // who is there changes without us
  })
  useEffect(() => {
    const later = setTimeout(startEarly, BEFORE_ENGINE)
    return () => clearTimeout(later)
  }, [])
  const [words, setWords] = useState('')
  const [order, setOrder] = useState<Order>('changed')
  const run = (p: Promise<unknown>) =>
    p.then(() => client.invalidateQueries({ queryKey: ['projects'] }), refused)
  const open = (data ?? []).filter((p) => !p.binned)
  const shown = listed(open, words, order)
  return (
    <main className="mx-auto flex h-full max-w-[1400px] flex-col px-8 pt-8">
      <header className="mb-6 flex items-baseline gap-4">
        <h1 className="text-brand font-bold">Shoal</h1>
        <p className="soft">Effects, routing and prints, decided together.</p>
        <span className="ml-auto flex items-center">
          <Me />
          <button className="btn btn-sm btn-ghost" onClick={turnTheme}>
            Day or night
          </button>
        </span>
      </header>
      <div className="flex min-h-0 flex-1 gap-8">
        <aside className="flex w-[270px] shrink-0 flex-col gap-4 overflow-y-auto pb-6">
          <Begin first={data?.length === 0} run={run} />
          <Notices />
        </aside>
        <section className="flex min-w-0 flex-1 flex-col" aria-label="Projects">
          {error && <p role="alert">{error.message}</p>}
          {open.length > 0 && (
            <div className="mb-3 flex items-center gap-2">
              <input
                type="search"
                className="input input-sm w-[320px]"
                placeholder="Find a project, a row, a section, a person"
                aria-label="Find a project"
                value={words}
                onChange={(e) => setWords(e.target.value)}
              />
              <label className="soft ml-auto flex items-center gap-2">
                By
                <select
                  aria-label="Order"
                  className="select select-sm w-[140px]"
                  value={order}
                  onChange={(e) => setOrder(e.target.value as Order)}
                >
                  {Object.entries(orders).map(([id, o]) => (
                    <option key={id} value={id}>
                      {o.text}
                    </option>
                  ))}
                </select>
              </label>
            </div>
          )}
          <div className="min-h-0 flex-1 overflow-y-auto pb-6">
            <ul className="grid grid-cols-[repeat(auto-fill,minmax(290px,1fr))] gap-4">
              {shown.map((p) => (
                <ProjectCard key={p.id} project={p} run={run} />
              ))}
            </ul>
            {data && open.length === 0 && <Nothing />}
            {open.length > 0 && shown.length === 0 && (
              <p className="soft py-4">No project goes by “{words}”.</p>
            )}
            <Bin list={(data ?? []).filter((p) => p.binned)} run={run} />
          </div>
        </section>
      </div>
      <NameGate />
    </main>
  )
}

/** What an empty list says. */
const Nothing = () => (
  <div className="flex flex-col gap-1 rounded border p-6" style={{ borderColor: 'var(--hair)' }}>
    <p className="text-head font-semibold">There is no project yet.</p>
    <p className="soft">
      Open the demo and press Play to hear what Shoal does. Or begin with sound of your own, or with rows that
      are laid out for a kind of work.
    </p>
  </div>
)
