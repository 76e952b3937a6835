import { useInfiniteQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { answer, api, fileAt } from '../api/client'
import { Card } from '../controls/Card'
import { useSession } from '../session/store'
import { Entry } from './Entry'
import { Narrow, type Narrowed } from './Narrow'

/** Who changed what, and when: the newest first, a page after the other, found by words, person, row and kind. */
export function Logbook() {
  const id = useSession((s) => s.project!.id)
  const [text, setText] = useState('')
  const [by, setBy] = useState<Narrowed>({})
  const words = useDeferredValue(text.trim())
  const { data, hasNextPage, fetchNextPage, isFetching } = useLog(id, { ...by, words: words || undefined })
  const entries = data?.pages.flatMap((p) => p.entries)
  return (
    <Card title="Logbook" width={560}>
      <div className="mb-1.5 flex shrink-0 items-center gap-2">
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
      <Narrow by={by} onBy={setBy} />
      <p className="soft mb-2 text-small">
        Undo and redo take back your own changes only. Press an entry to see from what to what it went.
      </p>
      <table className="table table-xs">
        <tbody>
          {entries?.map((e) => (
            <Entry key={e.revision} of={e} />
          ))}
        </tbody>
      </table>
      {entries?.length === 0 && (
        <p className="soft">
          {words
            ? `Nothing goes by “${words}”.`
            : Object.values(by).some(Boolean)
              ? 'Nothing of this kind has been changed.'
              : 'Nothing has been changed yet.'}
        </p>
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

/** The logbook of a project, or what of it was asked for; anew with every revision. */
function useLog(id: string, query: Narrowed & { words?: string }) {
  const revision = useSession((s) => s.revision)
  return useInfiniteQuery({
    queryKey: ['logbook', id, query, revision],
    queryFn: ({ pageParam: before }) =>
      answer(
        api.GET('/api/projects/{id}/logbook', {
          params: { path: { id }, query: { ...query, before: before || undefined } },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last) => (last.more ? last.entries.at(-1)?.revision : undefined),
    placeholderData: (before) => before,
  })
}
