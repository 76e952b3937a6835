import { useState } from 'react'
import type { Channel } from '../api/types'
import { percent, share, spentBefore } from '../controls/cost'
import { idOf } from '../document/chain'
import { change } from '../session/changes'
import { useSession } from '../session/store'
import { holds } from './line'

/** How many of the dearest rows are ticked to begin with, and how many are shown at most. */
const TICKED = 3
const SHOWN = 6

/** What a row's chain takes, whether it runs or lies before the line. */
const whole = (c: Channel, spent: Record<string, number>) => spentBefore(c, c.chain.nodes.length - 1, spent)

/** Frees the engine: the dearest rows are printed behind the music, in one gesture. */
export function Ease() {
  const project = useSession((s) => s.project)!
  const spent = useSession((s) => s.spent)
  const worked = useSession((s) => s.worked)
  const [turned, setTurned] = useState<Record<string, boolean>>({})
  const of = (nanos: number) => percent(share(nanos, project.sampleRate))
  const list = project.channels
    .filter((c) => !c.waterline && c.kind !== 'main' && whole(c, spent) > 0)
    .sort((a, b) => whole(b, spent) - whole(a, spent))
    .slice(0, SHOWN)
  const printed = project.channels.filter((c) => c.waterline)
  const ready = printed.filter((c) => holds(worked.find((w) => w.row === c.id)))
  const freed = ready.reduce((sum, c) => sum + spentBefore(c, lineAt(c), spent), 0)
  const ticked = list.filter((c, i) => turned[c.id] ?? i < TICKED)
  const print = () =>
    change(
      `Print ${ticked.map((c) => c.name).join(', ')} behind the music`,
      ...ticked.map((c) => ({
        type: 'waterline.put' as const,
        do: { node: idOf(c.chain.nodes.at(-1)!) },
      })),
    )
  if (list.length + printed.length === 0) return null // nothing has been measured yet
  return (
    <section aria-label="Ease the engine" className="mb-3 flex flex-col gap-1.5">
      <h3 className="text-label font-semibold">Ease the engine</h3>
      {printed.length > 0 && (
        <p className="text-small" data-testid="freed">
          {ready.length} of {printed.length}{' '}
          {printed.length > 1 ? 'rows with lines hold' : 'row with a line holds'}
          {freed > 0 && `: ${of(freed)} of real time is free for it`}.
        </p>
      )}
      {list.length > 0 && (
        <>
          <div className="grid grid-cols-2 gap-x-4">
            {list.map((c) => (
              <label key={c.id} className="flex min-h-6 items-center gap-2 text-label">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={ticked.includes(c)}
                  onChange={(e) => setTurned({ ...turned, [c.id]: e.target.checked })}
                />
                <span className="grow truncate">{c.name}</span>
                <span className="figure text-small">frees {of(whole(c, spent))}</span>
              </label>
            ))}
          </div>
          <button
            className="btn btn-sm btn-outline self-start font-normal"
            disabled={!ticked.length}
            onClick={() => void print()}
          >
            Print {ticked.length === 1 ? 'this one' : `these ${ticked.length}`} behind the music
          </button>
          <p className="soft text-small">
            It sounds as before. What you touch runs again at once, and is printed anew by itself.
          </p>
        </>
      )}
    </section>
  )
}

const lineAt = (c: Channel) => c.chain.nodes.findIndex((n) => idOf(n) === c.waterline)
