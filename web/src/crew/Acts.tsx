import { useInfiniteQuery } from '@tanstack/react-query'
import { answer, api } from '../api/client'
import { when } from './HandedOver'

/** What was done: who came, what was refused, roles, exports; the newest first. */
export function Acts() {
  const { data, hasNextPage, fetchNextPage } = useInfiniteQuery({
    queryKey: ['acts'],
    queryFn: ({ pageParam: before }) =>
      answer(api.GET('/api/acts', { params: { query: { before: before || undefined } } })),
    initialPageParam: 0,
    getNextPageParam: (last) => (last.length >= 100 ? last.at(-1)?.id : undefined),
  })
  const acts = data?.pages.flat() ?? []
  return (
    <details className="mt-3">
      <summary className="cursor-pointer font-semibold">What was done</summary>
      <table className="table table-xs">
        <tbody>
          {acts.map((a) => (
            <tr key={a.id}>
              <td className="figure soft whitespace-nowrap">{when(a.time)}</td>
              <td>{a.person.name || 'Nobody known'}</td>
              <td>
                {a.what} <span className="soft">{a.says}</span>
              </td>
              <td>{a.project}</td>
              <td className="figure soft">{a.address}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {hasNextPage && (
        <button className="btn btn-sm btn-outline font-normal" onClick={() => void fetchNextPage()}>
          What came before
        </button>
      )}
    </details>
  )
}
