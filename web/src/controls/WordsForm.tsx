import { useState } from 'react'
import { refused } from '../session/store'

export type Words = { name: string; says: string; tags: string[] }

type Props = {
  /** What the words are for: a preset, a thing on the shelf. */
  of: string
  now?: Words
  /** What its button says. */
  act: string
  onSave: (w: Words) => Promise<unknown>
  onDone: () => void
}

/** Asks for the name of something that is kept, what it is for, and its tags. */
export function WordsForm({ of, now, act, onSave, onDone }: Props) {
  const [busy, setBusy] = useState(false)
  return (
    <form
      className="mt-2 flex shrink-0 flex-col gap-1.5 border p-2"
      style={{ borderColor: 'var(--hair)' }}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Escape') onDone()
      }}
      onSubmit={(e) => {
        e.preventDefault()
        const f = new FormData(e.currentTarget)
        const words = {
          name: f.get('name') as string,
          says: f.get('says') as string,
          tags: (f.get('tags') as string).split(/[\s,]+/).filter(Boolean),
        }
        setBusy(true)
        onSave(words)
          .then(onDone, refused)
          .finally(() => setBusy(false))
      }}
    >
      <input
        name="name"
        autoFocus
        required
        maxLength={80}
        className="input input-xs w-full"
        placeholder="Name"
        aria-label={`Name of the ${of}`}
        defaultValue={now?.name}
      />
      <input
        name="says"
        maxLength={300}
        className="input input-xs w-full"
        placeholder="What it is for, in one sentence"
        aria-label="What it is for"
        defaultValue={now?.says}
      />
      <input
        name="tags"
        className="input input-xs w-full"
        placeholder="Tags"
        aria-label="Tags"
        defaultValue={now?.tags.join(' ')}
      />
      <span className="flex justify-end gap-1">
        <button type="button" className="btn btn-xs btn-ghost" onClick={onDone}>
          Cancel
        </button>
        <button className="btn btn-xs btn-primary" disabled={busy}>
          {act}
        </button>
      </span>
    </form>
  )
}
