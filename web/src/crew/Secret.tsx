import { useState } from 'react'

type Props = { name: string; label: string; now?: boolean; autoFocus?: boolean }

/** Where a password is typed; it can be looked at. */
export function Secret({ name, label, now, autoFocus }: Props) {
  const [shown, setShown] = useState(false)
  return (
    <label className="block">
      {label}
      <span className="flex gap-1.5">
        <input
          name={name}
          type={shown ? 'text' : 'password'}
          required
          autoFocus={autoFocus}
          autoComplete={now ? 'current-password' : 'new-password'}
          minLength={now ? undefined : 10}
          maxLength={200}
          className="input min-w-0 grow"
        />
        <button
          type="button"
          className="btn btn-outline font-normal"
          aria-pressed={shown}
          onClick={() => setShown(!shown)}
        >
          {shown ? 'Hide' : 'Show'}
        </button>
      </span>
      {!now && (
        <span className="soft text-small">
          At least 10 letters. A few words in a row are easy to keep in mind.
        </span>
      )}
    </label>
  )
}
