import { useState } from 'react'
import { answer, api } from '../api/client'
import type { Who } from '../api/types'

/** Asks who somebody is, and for what proves it. */
export function SignIn({ onIn }: { onIn: (who: Who) => void }) {
  const [wrong, setWrong] = useState('')
  const [busy, setBusy] = useState(false)
  const ask = (f: FormData) => {
    setBusy(true)
    setWrong('')
    const body = { name: f.get('name') as string, password: f.get('password') as string }
    answer(api.POST('/api/session', { body }))
      .then(onIn, (e: Error) => setWrong(e.message))
      .finally(() => setBusy(false))
  }
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault()
        ask(new FormData(e.currentTarget))
      }}
    >
      <label>
        Name
        <input
          name="name"
          required
          autoFocus
          autoComplete="username"
          maxLength={80}
          className="input w-full"
        />
      </label>
      <label>
        Password
        <input
          name="password"
          type="password"
          required
          autoComplete="current-password"
          className="input w-full"
        />
      </label>
      {wrong && (
        <p role="alert" className="border-l-2 pl-2" style={{ borderColor: 'var(--loss)' }}>
          {wrong}
        </p>
      )}
      <button className="btn btn-primary" disabled={busy}>
        Sign in
      </button>
      <p className="soft text-small">
        No account yet, or the password forgotten? Ask whoever keeps this Shoal, or the owner of a project,
        for a link.
      </p>
    </form>
  )
}
