import { useState } from 'react'
import { put } from '../api/client'
import type { Person } from '../api/types'
import { Card } from '../controls/Card'
import { reconnect, refused, useSession } from '../live/session'

/** Asks for a name once: changes carry it. */
export function NameGate() {
  const me = useSession((s) => s.me)
  const [later, setLater] = useState(false)
  if (me || later) return null
  const save = async (name: string) => {
    try {
      const person = await put<Person>('/api/me', { name })
      useSession.setState({ me: person })
      reconnect()
    } catch (e) {
      refused(e)
    }
  }
  return (
    <Card title="What is your name?" width={420} onClose={() => setLater(true)}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          void save(new FormData(e.currentTarget).get('name') as string)
        }}
      >
        <p>Others in the project see who made a change. You are asked once on this machine.</p>
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
    </Card>
  )
}
