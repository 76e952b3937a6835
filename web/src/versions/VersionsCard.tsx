import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../api/client'
import { Card } from '../controls/Card'
import { refused, useSession } from '../session/store'
import { VersionRow } from './VersionRow'

/** Revisions with a name: heard beside now, compared in words, gone back to, and begun anew from. */
export function VersionsCard() {
  const id = useSession((s) => s.project!.id)
  const may = useSession((s) => s.role !== 'listener')
  const { data, refetch } = useQuery({
    queryKey: ['versions', id],
    queryFn: () => answer(api.GET('/api/projects/{id}/versions', { params: { path: { id } } })),
  })
  const run = (what: Promise<unknown>) => what.then(() => refetch(), refused)
  const name = (form: HTMLFormElement) => {
    const body = { name: new FormData(form).get('name') as string, revision: 0 }
    form.reset()
    void run(answer(api.POST('/api/projects/{id}/versions', { params: { path: { id } }, body })))
  }
  return (
    <Card title="Versions" width={520}>
      {may && (
        <form
          className="mb-3 flex gap-2"
          onSubmit={(e) => {
            e.preventDefault()
            name(e.currentTarget)
          }}
        >
          <input
            name="name"
            required
            maxLength={80}
            autoFocus
            className="input input-sm min-w-0 grow"
            placeholder="What it is now: rough mix, before the new verse…"
            aria-label="Name of the version"
          />
          <button className="btn btn-sm btn-primary">Name it</button>
        </form>
      )}
      {data?.length === 0 && (
        <p className="soft">
          No revision has a name yet. One that has is kept: it can be heard beside now, as loud, and gone back
          to.
        </p>
      )}
      <ul className="flex flex-col gap-2">
        {data?.map((v) => (
          <VersionRow key={v.id} of={v} run={run} may={may} />
        ))}
      </ul>
    </Card>
  )
}
