import { answer, api } from '../api/client'
import { Modal } from '../controls/Modal'
import { SignIn } from '../crew/SignIn'
import { reconnect } from '../session/live'
import { refused, useSession } from '../session/store'

/** Asks for a name: when a change lacks one, or somebody wants to say who they are. */
export function NameGate() {
  const naming = useSession((s) => s.naming)
  if (!naming) return null
  const settle = (named: boolean) => {
    useSession.setState({ naming: null })
    naming(named)
  }
  const save = async (name: string) => {
    try {
      const person = await answer(api.PUT('/api/me', { body: { name } }))
      useSession.setState({ me: person })
      if (useSession.getState().project) reconnect()
      settle(true)
    } catch (e) {
      refused(e)
    }
  }
  if (location.protocol === 'https:') {
    return (
      <Modal title="Sign in again" width={420} onClose={() => settle(false)}>
        <SignIn
          onIn={(who) => {
            useSession.setState({ me: who })
            if (useSession.getState().project) reconnect()
            settle(true)
          }}
        />
      </Modal>
    )
  }
  return (
    <Modal title="What is your name?" width={420} onClose={() => settle(false)}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          void save(new FormData(e.currentTarget).get('name') as string)
        }}
      >
        <p>
          A change carries a name, so that others in the project see who made it. You are asked once on this
          machine.
        </p>
        <input
          name="name"
          autoFocus
          required
          maxLength={60}
          className="input w-full"
          aria-label="Your name"
        />
        <button className="btn btn-primary">Go on</button>
      </form>
    </Modal>
  )
}
