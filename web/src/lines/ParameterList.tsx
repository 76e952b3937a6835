import { useQueries } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import type { Movable } from '../api/types'
import { chosenLook } from '../controls/list'
import { matching } from '../controls/matching'
import { chosenOf, SearchList, useSearch } from '../controls/SearchList'
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
  const by = useSearch()
  const found = matching(all ?? [], by.text, ['label', 'of', 'row'])
    .sort(
      (a, b) =>
        (newFirst ? -1 : 1) * (Number(!!inUse(b)) - Number(!!inUse(a))) ||
        ago(a.owner, a.name) - ago(b.owner, b.name) ||
        0,
    )
    .slice(0, 200)
  const chosen = chosenOf(found, by.at)
  const shut = () => setView({ dialog: null })
  const take = (m: Found) => {
    shut()
    onTake(m)
  }
  return (
    <SearchList
      label={label}
      things="Parameters"
      placeholder="Search: level, frequency, bypass…"
      head={head}
      foot={foot}
      by={by}
      found={found}
      onTake={take}
      onClose={shut}
    >
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
      {all && found.length === 0 && <p className="soft p-2">Nothing here goes by “{by.text}”.</p>}
    </SearchList>
  )
}

type EntryProps = { of: Found; isChosen: boolean; many: boolean; says: string; onTake: (m: Found) => void }

const Parameter = ({ of: m, isChosen, many, says, onTake }: EntryProps) => (
  <button
    role="option"
    aria-selected={isChosen}
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
