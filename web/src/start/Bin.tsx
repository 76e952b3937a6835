import { api } from '../api/client'
import type { Listed } from '../api/types'
import { ago } from './when'

/** What was put away: nothing is lost, it can be taken back. */
export function Bin({ list, run }: { list: Listed[]; run: (what: Promise<unknown>) => unknown }) {
  if (list.length === 0) return null
  return (
    <details className="mt-6" open={list.length < 4}>
      <summary className="cursor-pointer">
        <h2 className="soft inline font-bold">In the bin</h2>{' '}
        <span className="soft figure">{list.length}</span>
      </summary>
      <ul className="mt-1">
        {list.map((p) => (
          <li
            key={p.id}
            className="flex items-center gap-3 py-1.5"
            style={{ borderTop: '1px solid var(--hair)' }}
          >
            <span className="min-w-0 flex-1 truncate">{p.name}</span>
            <span className="soft text-small">put away {ago(p.binned)}</span>
            <button
              className="btn btn-xs btn-outline"
              onClick={() =>
                void run(api.POST('/api/projects/{id}/restore', { params: { path: { id: p.id } } }))
              }
            >
              Take it back
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}
