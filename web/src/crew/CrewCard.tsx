import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../api/client'
import type { Crew } from '../api/types'
import { Card } from '../controls/Card'
import { refused, useSession } from '../session/store'
import { HereNow } from './HereNow'
import { Invite } from './Invite'
import { OpenLinks } from './OpenLinks'
import { People } from './People'

/** Who is in the project and what they may, and how somebody else comes in. */
export function CrewCard() {
  const id = useSession((s) => s.project!.id)
  const turn = useSession((s) => s.crew)
  const { data, refetch } = useQuery({
    queryKey: ['crew', id, turn],
    queryFn: () => answer(api.GET('/api/projects/{id}/crew', { params: { path: { id } } })),
    placeholderData: (before: Crew | undefined) => before,
  })
  const run = (what: Promise<unknown>) => what.then(() => refetch(), refused)
  return (
    <Card title="Crew" width={560}>
      <HereNow />
      {data && (data.accounts ? <Members id={id} of={data} run={run} /> : <OnThisMachine />)}
    </Card>
  )
}

export type Run = (what: Promise<unknown>) => Promise<unknown>

const OnThisMachine = () => (
  <>
    <p>
      This Shoal is for this machine only: whoever opens it may do everything, and a name is enough to be told
      apart.
    </p>
    <p className="soft mt-2">
      To work from several machines, start it with an address that others reach, such as{' '}
      <code className="figure">shoal serve --addr 0.0.0.0:4680</code>: it then speaks HTTPS, there are
      accounts, and every project has owners, engineers and listeners.
    </p>
  </>
)

function Members({ id, of: c, run }: { id: string; of: Crew; run: Run }) {
  const owns = c.role === 'owner'
  return (
    <>
      <People id={id} of={c} run={run} />
      <label className="mt-2 flex min-h-6 items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={c.exports}
          disabled={!owns}
          onChange={(e) =>
            void run(
              answer(
                api.PUT('/api/projects/{id}/crew', {
                  params: { path: { id } },
                  body: { exports: e.target.checked },
                }),
              ),
            )
          }
        />
        Listeners may export: bundles, files, copies of the project
      </label>
      {owns ? (
        <>
          <Invite id={id} run={run} />
          <OpenLinks id={id} links={c.links} run={run} />
        </>
      ) : (
        <p className="soft mt-3">Owners bring others in, and say what they may.</p>
      )}
    </>
  )
}
