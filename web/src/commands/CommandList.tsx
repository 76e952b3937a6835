import { useMemo, useState } from 'react'
import { matching } from '../controls/matching'
import { chosenLook } from '../controls/list'
import { chosenOf, SearchList, useSearch } from '../controls/SearchList'
import { setView } from '../session/view'
import { type Command, commands } from './commands'

/** How many are shown at once: who sees more does not read them. */
const SHOWN = 60

/** Everything that can be done here and now, found by words; with its key, and what it acts on. */
export function CommandList() {
  const [all] = useState(commands)
  const by = useSearch()
  const found = useMemo(
    () => (by.text.trim() ? matching(all, by.text, ['name', 'of', 'words']) : all).slice(0, SHOWN),
    [all, by.text],
  )
  const chosen = chosenOf(found, by.at)
  const shut = () => setView({ dialog: null })
  const take = (c: Command) => {
    shut()
    void c.run()
  }
  return (
    <SearchList
      label="Commands"
      things="Commands"
      placeholder="Search: mute, add echo, go to choir…"
      width={620}
      head="Everything that can be done here"
      foot="Arrows choose, Enter does it. What is selected decides what is offered."
      by={by}
      found={found}
      onTake={take}
      onClose={shut}
    >
      {found.map((c) => (
        <button
          key={`${c.name} ${c.of} ${c.key}`}
          role="option"
          aria-selected={c === chosen}
          ref={(el) => {
            if (c === chosen) el?.scrollIntoView({ block: 'nearest' })
          }}
          className="flex min-h-6 w-full items-baseline gap-2 rounded-[2px] px-2 py-1 text-left"
          style={chosenLook(c === chosen)}
          onClick={() => take(c)}
        >
          <span className="min-w-0 grow">
            <span className="font-semibold">{c.name}</span> <span className="soft text-small">{c.of}</span>
          </span>
          {c.key && <kbd className="kbd kbd-xs whitespace-nowrap">{c.key}</kbd>}
        </button>
      ))}
      {found.length === 0 && <p className="soft p-2">Nothing goes by “{by.text}”.</p>}
    </SearchList>
  )
}
