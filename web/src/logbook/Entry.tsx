import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api } from '../api/client'
import type { Logged } from '../api/types'
import { reached } from '../session/changes'
import { notice, refused, useSession } from '../session/store'
import { DifferenceList } from '../versions/DifferenceList'

/** A change; pressed, it shows from what to what it went, and leads back to before it. */
export function Entry({ of: e }: { of: Logged }) {
  const [open, setOpen] = useState(false)
  return (
    <>
      <tr>
        <td className="figure soft">{e.revision}</td>
        <td className={e.spent && e.kind !== 'undo' ? 'struck soft' : ''}>
          <button className="text-left" aria-expanded={open} onClick={() => setOpen(!open)}>
            {e.kind === 'undo' ? 'Undo: ' : e.kind === 'redo' ? 'Redo: ' : ''}
            {e.label}
          </button>
        </td>
        <td>{e.author.name}</td>
        <td className="figure soft whitespace-nowrap">
          {new Date(e.time).toLocaleString([], { dateStyle: 'short', timeStyle: 'medium' })}
        </td>
      </tr>
      {open && (
        <tr>
          <td />
          <td colSpan={3}>
            <What revision={e.revision} />
          </td>
        </tr>
      )}
    </>
  )
}

function What({ revision }: { revision: number }) {
  const id = useSession((s) => s.project!.id)
  const may = useSession((s) => s.role !== 'listener')
  const params = { path: { id, revision } }
  const { data, error } = useQuery({
    queryKey: ['changed', id, revision],
    queryFn: () => answer(api.GET('/api/projects/{id}/changes/{revision}', { params })),
    staleTime: Infinity,
    retry: false,
  })
  const back = () =>
    answer(api.POST('/api/projects/{id}/changes/{revision}/back', { params })).then(async (r) => {
      await reached(r.revision)
      notice(`${r.label}. Undo brings back what was.`)
    }, refused)
  if (error) return <p className="soft">{error.message}</p>
  if (!data) return null
  return (
    <>
      {data.length === 0 && (
        <p className="soft">Nothing that is heard: something was said, or taken in hand.</p>
      )}
      <DifferenceList of={data} />
      {may && (
        <button className="btn btn-xs btn-outline mt-1 font-normal" onClick={() => void back()}>
          The whole project back to before this
        </button>
      )}
    </>
  )
}
