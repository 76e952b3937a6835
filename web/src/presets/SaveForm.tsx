import { useState } from 'react'
import type { Preset } from '../api/types'
import { refused } from '../session/store'

type Words = { name: string; says: string; tags: string[] }

/** Asks for a preset's name, what it is for, and its tags. */
export function SaveForm({
  preset,
  onSave,
  onDone,
}: {
  preset: Preset | null
  onSave: (w: Words) => Promise<void>
  onDone: () => void
}) {
  const [busy, setBusy] = useState(false)
  return (
    <form
      className="mt-2 flex flex-col gap-1.5 border p-2"
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
        className="input input-xs"
        placeholder="Name"
        aria-label="Name of the preset"
        defaultValue={preset?.name}
      />
      <input
        name="says"
        maxLength={300}
        className="input input-xs"
        placeholder="What it is for, in one sentence"
        aria-label="What it is for"
        defaultValue={preset?.says}
      />
      <input
        name="tags"
        className="input input-xs"
        placeholder="Tags"
        aria-label="Tags"
        defaultValue={preset?.tags.join(' ')}
      />
      <span className="flex justify-end gap-1">
        <button type="button" className="btn btn-xs btn-ghost" onClick={onDone}>
          Cancel
        </button>
        <button className="btn btn-xs btn-primary" disabled={busy}>
          {preset ? 'Rename' : 'Save the present setting'}
        </button>
      </span>
    </form>
  )
}
