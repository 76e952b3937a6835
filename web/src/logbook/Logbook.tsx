import { useInfiniteQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { answer, api, fileAt } from '../api/client'
import type { Logged } from '../api/types'
import { Card } from '../controls/Card'
import { useSession } from '../session/store'

/** Who changed what, and when: the newest first, a page after the other, found by words. */
export function Logbook() {
  const id = useSession((s) => s.project!.id)
  const [text, setText] = useState('')
  const words = useDeferredValue(text.trim())
  const { data, hasNextPage, fetchNextPage, isFetching } = useLog(id, words)
  const entries = data?.pages.flatMap((p) => p.entries)
  return (
    <Card title="Logbook" width={560}>
      <div className="mb-2 flex shrink-0 items-center gap-2">
        <input
          className="input input-sm min-w-0 grow"
          placeholder="Search: mute, Odile, choir…"
          aria-label="Search the logbook"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <a
          className="btn btn-sm btn-outline font-normal"
          href={fileAt('/api/projects/{id}/logbook.csv', { path: { id } })}
          download
        >
          Export as a table
        </a>
      </div>
      <p className="soft mb-2 text-small">Undo and redo take back your own changes only.</p>
      <table className="table table-xs">
        <tbody>
          {entries?.map((e) => (
            <Entry key={e.revision} of={e} />
          ))}
        </tbody>
      </table>
      {entries?.length === 0 && (
        <p className="soft">{words ? `Nothing goes by “${words}”.` : 'Nothing has been changed yet.'}</p>
      )}
      {hasNextPage && (
        <button
          className="btn btn-sm btn-outline mt-2 font-normal"
          disabled={isFetching}
          onClick={() => void fetchNextPage()}
        >
          What came before
        </button>
      )}
    </Card>
  )
}

/** The logbook of a project, or what of it goes by words; anew with every revision. */
function useLog(id: string, words: string) {
  const revision = useSession((s) => s.revision)
  return useInfiniteQuery({
    queryKey: ['logbook', id, words, revision],
    queryFn: ({ pageParam: before }) =>
      answer(
        api.GET('/api/projects/{id}/logbook', {
          params: { path: { id }, query: { words: words || undefined, before: before || undefined } },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last) => (last.more ? last.entries.at(-1)?.revision : undefined),
    placeholderData: (before) => before,
  })
}

const Entry = ({ of: e }: { of: Logged }) => (
  <tr>
    <td className="figure soft">{e.revision}</td>
    <td className={e.spent && e.kind !== 'undo' ? 'struck soft' : ''}>
      {e.kind === 'undo' ? 'Undo: ' : e.kind === 'redo' ? 'Redo: ' : ''}
      {e.label}
    </td>
    <td>{e.author.name}</td>
    <td className="figure soft whitespace-nowrap">
      {new Date(e.time).toLocaleString([], { dateStyle: 'short', timeStyle: 'medium' })}
    </td>
  </tr>
)
