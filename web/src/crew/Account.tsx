import { useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api } from '../api/client'
import type { Who } from '../api/types'
import { Modal } from '../controls/Modal'
import { notice, refused } from '../session/store'
import { when } from './HandedOver'
import { Secret } from './Secret'

type Props = { me: Who; onClose: () => void }

/** One's own account: name, password, and where one is signed in. */
export function Account({ me, onClose }: Props) {
  const client = useQueryClient()
  const rename = (f: FormData) =>
    answer(api.PUT('/api/me', { body: { name: f.get('name') as string } })).then((who) => {
      client.setQueryData(['me'], who)
      notice(`You are called ${who.name} now.`)
    }, refused)
  const renew = (form: HTMLFormElement) => {
    const f = new FormData(form)
    const body = { old: f.get('old') as string, new: f.get('new') as string }
    answer(api.PUT('/api/password', { body })).then(() => {
      form.reset()
      notice('Your password is another now. Wherever else you were signed in, you are signed out.')
      void client.invalidateQueries({ queryKey: ['sessions'] })
    }, refused)
  }
  return (
    <Modal title="Your account" width={480} onClose={onClose}>
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault()
          void rename(new FormData(e.currentTarget))
        }}
      >
        <label className="grow">
          Name
          <input name="name" required maxLength={60} defaultValue={me.name} className="input w-full" />
        </label>
        <button className="btn btn-outline">Rename</button>
      </form>
      <form
        className="mt-4 flex flex-col gap-2"
        onSubmit={(e) => {
          e.preventDefault()
          renew(e.currentTarget)
        }}
      >
        <Secret name="old" label="Password until now" now />
        <Secret name="new" label="New password" />
        <button className="btn btn-outline self-start">Change the password</button>
      </form>
      <SignedIn />
    </Modal>
  )
}

/** Where one is signed in; each can be ended. */
function SignedIn() {
  const { data = [], refetch } = useQuery({
    queryKey: ['sessions'],
    queryFn: () => answer(api.GET('/api/sessions')),
  })
  const end = (session: string) =>
    answer(api.DELETE('/api/sessions/{session}', { params: { path: { session } } })).then(
      () => refetch(),
      refused,
    )
  return (
    <section className="mt-4">
      <h3 className="font-semibold">Where you are signed in</h3>
      <ul>
        {data.map((s) => (
          <li key={s.id} className="flex min-h-9 items-center gap-2">
            <span className="min-w-0 grow leading-tight">
              <span className="block truncate" title={s.agent}>
                {s.here ? 'Here' : browser(s.agent)}
              </span>
              <span className="soft block text-small">
                Since {when(s.begun)}, last seen {when(s.seen)}
              </span>
            </span>
            {!s.here && (
              <button className="btn btn-sm btn-outline" onClick={() => void end(s.id)}>
                Sign out there
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** What a browser calls itself, in short: the whole of it on hover. */
const browser = (agent: string) =>
  /(Firefox|Edg|Chrome|Safari)\/\d+/.exec(agent)?.[0].replace('/', ' ') ?? (agent.slice(0, 60) || 'A browser')
