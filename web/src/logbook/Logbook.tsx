import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../api/client'
import { Card } from '../controls/Card'
import { useSession } from '../session/store'

/** Who changed what, and when: the newest first. */
export function Logbook() {
  const id = useSession((s) => s.project!.id)
  const revision = useSession((s) => s.revision)
  const { data } = useQuery({
    queryKey: ['logbook', id, revision],
    queryFn: () => answer(api.GET('/api/projects/{id}/logbook', { params: { path: { id } } })),
  })
  return (
    <Card title="Logbook" width={560}>
      <p className="soft mb-2 text-small">Undo and redo take back your own changes only.</p>
      <table className="table table-xs">
        <tbody>
          {data?.map((e) => (
            <tr key={e.revision}>
              <td className="figure soft">{e.revision}</td>
              <td className={e.spent && e.kind !== 'undo' ? 'struck soft' : ''}>
                {e.kind === 'undo' ? 'Undo: ' : e.kind === 'redo' ? 'Redo: ' : ''}
                {e.label}
              </td>
              <td>{e.author.name}</td>
              <td className="figure soft">{new Date(e.time).toLocaleTimeString()}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {data?.length === 0 && <p className="soft">Nothing has been changed yet.</p>}
    </Card>
  )
}
