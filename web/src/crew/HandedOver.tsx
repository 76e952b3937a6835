import { useState } from 'react'

/** A link for somebody to hand over, shown this once. */
export function HandedOver({ path, until }: { path: string; until: string }) {
  const [copied, setCopied] = useState(false)
  const link = location.origin + path
  return (
    <div className="my-2 flex flex-col gap-1.5 border p-2" style={{ borderColor: 'var(--deep)' }}>
      <span className="flex gap-1.5">
        <input
          readOnly
          className="input input-sm min-w-0 grow"
          aria-label="The link"
          value={link}
          autoFocus
          onFocus={(e) => e.target.select()}
        />
        <button
          type="button"
          className="btn btn-sm btn-primary"
          onClick={() => void navigator.clipboard.writeText(link).then(() => setCopied(true))}
        >
          {copied ? 'Copied' : 'Copy'}
        </button>
      </span>
      <span className="soft text-small">
        Hand it over yourself: it is shown this once. It holds until {when(until)}.
      </span>
    </div>
  )
}

/** A time as the reader writes it. */
export const when = (time: string) =>
  new Date(time).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })
