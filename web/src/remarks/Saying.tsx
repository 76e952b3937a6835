import { useState } from 'react'
import type { Speaker } from '../api/types'
import { useTellable } from './useTellable'

type Props = {
  label: string
  act: string
  /** Who is told unless somebody is taken off. */
  told?: string[]
  autoFocus?: boolean
  onSay: (text: string, told: Speaker[]) => Promise<boolean>
}

/** Where something is said, and who is to be told. Ctrl Enter says it. */
export function Saying({ label, act, told = [], autoFocus, onSay }: Props) {
  const people = useTellable()
  const [text, setText] = useState('')
  const [to, setTo] = useState(told)
  const [busy, setBusy] = useState(false)
  const say = () => {
    if (!text.trim()) return
    setBusy(true)
    void onSay(
      text,
      people.filter((p) => to.includes(p.person)),
    ).then((done) => {
      if (done) setText('')
      setBusy(false)
    })
  }
  return (
    <form
      className="flex flex-col gap-1.5"
      onSubmit={(e) => {
        e.preventDefault()
        say()
      }}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' || !(e.ctrlKey || e.metaKey)) return
        e.preventDefault()
        say()
      }}
    >
      <textarea
        className="textarea textarea-sm min-h-14 w-full"
        aria-label={label}
        autoFocus={autoFocus}
        maxLength={2000}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <span className="flex flex-wrap items-center gap-1">
        {people.length > 0 && <span className="soft text-small">Tell</span>}
        {people.map((p) => (
          <button
            key={p.person}
            type="button"
            className={`btn btn-xs font-normal ${to.includes(p.person) ? 'btn-secondary' : 'btn-outline'}`}
            aria-pressed={to.includes(p.person)}
            onClick={() =>
              setTo(to.includes(p.person) ? to.filter((x) => x !== p.person) : [...to, p.person])
            }
          >
            {p.name}
          </button>
        ))}
        <button className="btn btn-sm btn-primary ml-auto" disabled={busy || !text.trim()} title="Ctrl Enter">
          {act}
        </button>
      </span>
    </form>
  )
}
