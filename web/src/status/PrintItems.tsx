import { useEffect } from 'react'
import { api, download, fileAt } from '../api/client'
import type { PrintStatus } from '../api/types'
import { Menu } from '../controls/Menu'
import { putAwayPrint, refused, useSession } from '../session/store'

const under = (p: PrintStatus) => p.state === 'running' || p.state === 'waiting'

/** Prints under way, and those that have ended while this window was open. */
export function PrintItems() {
  const prints = useSession((s) => s.prints)
  const news = useSession((s) => s.news)
  const shown = prints.filter((p) => under(p) || news.includes(p.id)).slice(0, 4)
  if (shown.length === 0) return null
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1" role="status" aria-label="Prints">
      {shown.map((p) => (
        <Item key={p.id} print={p} />
      ))}
    </div>
  )
}

/** How long it is said that a print has ended, in ms; one that failed stays. */
const SAID = 60_000

function Item({ print: p }: { print: PrintStatus }) {
  const ended = !under(p)
  useEffect(() => {
    if (!ended || p.state === 'failed') return
    const t = setTimeout(() => putAwayPrint(p.id), SAID)
    return () => clearTimeout(t)
  }, [ended, p.id, p.state])
  return (
    <span
      className="flex items-center gap-2 border-l-2 pl-2"
      style={{ borderColor: p.state === 'failed' ? 'var(--loss)' : 'var(--deep)' }}
    >
      <b>{p.name}</b>
      <Standing print={p} />
      {ended ? (
        <button
          className="btn btn-xs btn-ghost px-1.5"
          aria-label="Put away"
          onClick={() => putAwayPrint(p.id)}
        >
          ×
        </button>
      ) : (
        <button
          className="btn btn-xs btn-outline"
          onClick={() =>
            api.DELETE('/api/prints/{print}', { params: { path: { print: p.id } } }).catch(refused)
          }
        >
          Cancel
        </button>
      )}
    </span>
  )
}

function Standing({ print: p }: { print: PrintStatus }) {
  switch (p.state) {
    case 'waiting':
      return <span className="soft">waits for its turn</span>
    case 'running':
      return (
        <>
          <progress
            className="progress progress-secondary w-32"
            value={p.progress}
            max={1}
            aria-label={`${Math.round(p.progress * 100)} % printed`}
          />
          {!!p.left && p.left > 2 && <span className="soft figure">{timeLeft(p.left)}</span>}
        </>
      )
    case 'failed':
      return <span>{p.error}</span>
    case 'cancelled':
      return <span className="soft">cancelled; nothing is left behind</span>
    default:
      return p.files ? (
        <StemFiles print={p} />
      ) : p.file ? (
        <button
          className="btn btn-xs btn-outline"
          onClick={() =>
            void download(fileAt('/api/prints/{print}/file', { path: { print: p.file! } })).catch(refused)
          }
        >
          Save the file
        </button>
      ) : (
        <span className="soft">printed to a new track</span>
      )
  }
}

/** About how long it still takes. */
const timeLeft = (s: number) => (s < 60 ? `${Math.ceil(s)} s left` : `${Math.ceil(s / 60)} min left`)

/** What stems have become: all in one, or one of them. */
function StemFiles({ print: p }: { print: PrintStatus }) {
  const save = (name?: string) =>
    void download(
      name
        ? fileAt('/api/prints/{print}/files/{name}', { path: { print: p.file!, name } })
        : fileAt('/api/prints/{print}/file', { path: { print: p.file! } }),
    ).catch(refused)
  return (
    <Menu
      label="Save files of stems"
      className="btn btn-xs btn-outline"
      items={[
        { text: `All ${p.files!.length} as one zip`, run: () => save() },
        ...p.files!.map((name) => ({ text: name, run: () => save(name) })),
      ]}
    >
      Save the files ▾
    </Menu>
  )
}
