import { useMemo, useState } from 'react'
import { matching } from '../controls/matching'
import { chosenLook, listKeys } from '../controls/list'
import { SideList } from '../controls/SideList'
import { setView } from '../session/view'
import { type Command, commands } from './commands'

/** How many are shown at once: who sees more does not read them. */
const SHOWN = 60

/** Everything that can be done here and now, found by words; with its key, and what it acts on. */
export function CommandList() {
  const [all] = useState(commands)
  const [text, setText] = useState('')
  const [at, setAt] = useState(0)
  const found = useMemo(
    () => (text.trim() ? matching(all, text, ['name', 'of', 'words']) : all).slice(0, SHOWN),
    [all, text],
  )
  const chosen = found[Math.min(at, found.length - 1)]
  const shut = () => setView({ dialog: null })
  const take = (c: Command) => {
    shut()
    void c.run()
  }
  return (
    <SideList
      label="Commands"
      width={620}
      onClose={shut}
      onKey={(e) => listKeys(e, { at, of: found.length, go: setAt, take: () => chosen && take(chosen) })}
      head="Everything that can be done here"
      foot="Arrows choose, Enter does it. What is selected decides what is offered."
    >
      <input
        autoFocus
        className="input input-sm w-full shrink-0"
        placeholder="Search: mute, add echo, go to choir…"
        aria-label="Search commands"
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          setAt(0)
        }}
      />
      <div className="mt-2 min-h-0 overflow-y-auto" role="listbox" aria-label="Commands">
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
        {found.length === 0 && <p className="soft p-2">Nothing goes by “{text}”.</p>}
      </div>
    </SideList>
  )
}
