import { useEffect, useRef, useState } from 'react'
import { remove } from '../api/client'
import type { PrintStatus } from '../api/types'
import { refused, useSession } from '../live/session'

/** Prints under way, and those that have just ended. */
export function PrintTray() {
  const prints = useSession((s) => s.prints)
  const [shut, setShut] = useState<string[]>([])
  const known = useRef<Set<string> | null>(null)
  useEffect(() => {
    // what had ended before this window was opened is not news
    known.current ??= new Set(
      prints.filter((p) => p.state !== 'running' && p.state !== 'waiting').map((p) => p.id),
    )
  }, [prints])
  const shown = prints.filter((p) => !shut.includes(p.id) && !known.current?.has(p.id)).slice(0, 4)
  if (shown.length === 0) return null
  return (
    <div
      className="fixed right-4 bottom-4 z-40 flex w-[300px] flex-col gap-2"
      role="status"
      aria-label="Prints"
    >
      {shown.map((p) => (
        <div
          key={p.id}
          className="rounded border p-2.5 text-[12.5px] shadow"
          style={{
            background: 'var(--card)',
            borderColor: p.state === 'failed' ? 'var(--loss)' : 'var(--deep)',
          }}
        >
          <div className="flex justify-between gap-2">
            <span className="truncate font-semibold">{p.name}</span>
            {p.state === 'running' || p.state === 'waiting' ? (
              <button
                className="btn btn-xs btn-ghost"
                onClick={() => remove(`/api/prints/${p.id}`).catch(refused)}
              >
                Cancel
              </button>
            ) : (
              <button
                className="btn btn-xs btn-ghost"
                aria-label="Put away"
                onClick={() => setShut([...shut, p.id])}
              >
                ×
              </button>
            )}
          </div>
          <Standing print={p} />
        </div>
      ))}
    </div>
  )
}

function Standing({ print: p }: { print: PrintStatus }) {
  switch (p.state) {
    case 'waiting':
      return <p className="soft">waits for its turn</p>
    case 'running':
      return (
        <progress
          className="progress progress-secondary w-full"
          value={p.progress}
          max={1}
          aria-label={`${Math.round(p.progress * 100)} % printed`}
        />
      )
    case 'failed':
      return <p>{p.error}</p>
    case 'cancelled':
      return <p className="soft">cancelled; nothing is left behind</p>
    default:
      return p.file ? (
        <a className="link" href={`/api/prints/${p.file}/file`} download>
          Save the file
        </a>
      ) : (
        <p className="soft">printed to a new track</p>
      )
  }
}
