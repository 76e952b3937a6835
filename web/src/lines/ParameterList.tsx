import { useQueries } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import type { Movable } from '../api/types'
import { chosenLook, listKeys } from '../controls/list'
import { matching } from '../controls/matching'
import { SideList } from '../controls/SideList'
import { ago } from '../session/handled'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'
import { setView } from '../session/view'

/** A parameter that can be moved, and the row it belongs to. */
export type Found = Movable & { row: string }

type Props = {
  label: string
  head: ReactNode
  foot: ReactNode
  /** Rows, or one treatment. */
  of: string[]
  /** What is said of a parameter that is in use already. */
  inUse: (m: Found) => string
  /** What is in use stands last: something else is looked for. */
  newFirst?: boolean
  onTake: (m: Found) => void
}

/** Everything of some rows that can be moved over time, found by words: what is in use first or last, then what a hand moved
    last. */
export function ParameterList({ label, head, foot, of, inUse, newFirst, onTake }: Props) {
  const all = useFound(of)
  const [text, setText] = useState('')
  const [at, setAt] = useState(0)
  const found = matching(all ?? [], text, ['label', 'of', 'row'])
    .sort(
      (a, b) =>
        (newFirst ? -1 : 1) * (Number(!!inUse(b)) - Number(!!inUse(a))) ||
        ago(a.owner, a.name) - ago(b.owner, b.name) ||
        0,
    )
    .slice(0, 200)
  const chosen = found[Math.min(at, found.length - 1)]
  const shut = () => setView({ dialog: null })
  const take = (m: Found) => {
    shut()
    onTake(m)
  }
  return (
    <SideList
      label={label}
      onClose={shut}
      onKey={(e) => listKeys(e, { at, of: found.length, go: setAt, take: () => chosen && take(chosen) })}
      head={head}
      foot={foot}
    >
      <input
        autoFocus
        className="input input-sm w-full shrink-0"
        placeholder="Search: level, frequency, bypass…"
        aria-label="Search parameters"
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          setAt(0)
        }}
      />
      <div className="mt-2 min-h-0 overflow-y-auto" role="list" aria-label="Parameters">
        {found.map((m) => (
          <Parameter
            key={`${m.owner} ${m.name}`}
            of={m}
            isChosen={m === chosen}
            many={of.length > 1}
            says={inUse(m)}
            onTake={take}
          />
        ))}
        {all && found.length === 0 && <p className="soft p-2">Nothing here goes by “{text}”.</p>}
      </div>
    </SideList>
  )
}

type EntryProps = { of: Found; isChosen: boolean; many: boolean; says: string; onTake: (m: Found) => void }

const Parameter = ({ of: m, isChosen, many, says, onTake }: EntryProps) => (
  <div role="listitem">
    <button
      ref={(el) => {
        if (isChosen) el?.scrollIntoView({ block: 'nearest' })
      }}
      className="flex min-h-6 w-full items-baseline gap-2 px-2 py-1 text-left text-label hover:bg-[var(--shoal-2)]"
      style={chosenLook(isChosen)}
      onClick={() => onTake(m)}
    >
      <span className="font-semibold">{m.label}</span>
      <span className="soft truncate text-small">{many && m.of !== m.row ? `${m.of}, ${m.row}` : m.of}</span>
      {says && <span className="water-label ml-auto text-small">{says}</span>}
    </button>
  </div>
)

/** What can be moved of some rows; null: not all of it has come. */
function useFound(of: string[]): Found[] | null {
  const revision = useSession((s) => s.revision)
  const channels = useSession((s) => s.project?.channels)
  const asked = useQueries({
    queries: of.map((row) => ({
      queryKey: ['movables', row, revision],
      queryFn: () => theEngine()!.ask('movables', { id: row }),
      retry: false,
    })),
  })
  if (asked.some((q) => !q.data)) return null
  return asked.flatMap((q, i) => {
    const row = channels?.find((c) => c.id === of[i])?.name ?? ''
    return q.data!.map((m) => ({ ...m, row }))
  })
}
