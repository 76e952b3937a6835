import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../api/client'
import type { Version } from '../api/types'
import { reached } from '../session/changes'
import { notice, refused, useSession } from '../session/store'
import { DifferenceList } from './DifferenceList'
import { hearNow } from './hearing'

/** What has changed since a version, row by row, and the ways back. */
export function Differences({ of: v, may }: { of: Version; may: boolean }) {
  const id = useSession((s) => s.project!.id)
  const revision = useSession((s) => s.revision)
  const params = { path: { id, version: v.id } }
  const { data, error } = useQuery({
    queryKey: ['differences', id, v.id, revision],
    queryFn: () => answer(api.GET('/api/projects/{id}/versions/{version}/differences', { params })),
    placeholderData: (before) => before,
  })
  const back = (rows: string[]) =>
    answer(api.POST('/api/projects/{id}/versions/{version}/back', { params, body: { rows } })).then(
      async (r) => {
        hearNow()
        await reached(r.revision)
        notice(`${r.label}. Undo brings back what was.`)
      },
      refused,
    )
  if (error) return <p role="alert">{error.message}</p>
  if (!data) return null
  if (data.length === 0) return <p className="soft mt-2">Nothing has changed since.</p>
  return (
    <div className="mt-2">
      <DifferenceList of={data} back={may ? (row) => void back([row]) : undefined} />
      {may && (
        <button className="btn btn-sm btn-outline mt-1 font-normal" onClick={() => void back([])}>
          All of it back to “{v.name}”
        </button>
      )}
    </div>
  )
}
