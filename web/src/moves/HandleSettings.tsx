import type { Handle } from '../api/types'
import { Pick, Toggle } from '../controls/Pick'
import { useOutline } from '../session/outline'
import * as moves from './actions'

/** What a handle is called, what it belongs to, and whether the row there shows it. */
export function HandleSettings({ handle: h }: { handle: Handle }) {
  const homes = useOutline((o) => o?.homes[h.id])
  return (
    <>
      <label className="grid grid-cols-[minmax(0,1fr)_112px] items-center gap-2 text-small">
        Name
        <input
          className="input input-xs w-full"
          aria-label="Name of the handle"
          key={h.name}
          defaultValue={h.name}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          onBlur={(e) => {
            const name = e.target.value.trim()
            if (name && name !== h.name) void moves.setHandle(h, { name }, `Rename ${h.name}`)
          }}
        />
      </label>
      <Pick
        wide
        label="Belongs to"
        says="The row or fork that it is a control of; it goes to the project when that is removed."
        value={h.home ?? ''}
        choices={(homes ?? []).map((x) => ({ value: x.id, text: x.text }))}
        onPick={(home) => {
          const shown = home !== '' && h.shown
          void moves.setHandle(h, { home, shown }, `Say what ${h.name} belongs to`)
        }}
      />
      {h.home && (
        <Toggle
          label="Show it on the row"
          says="A small scale on the row, beside its chain."
          on={h.shown ?? false}
          onSet={(shown) =>
            void moves.setHandle(h, { shown }, `${shown ? 'Show' : 'Hide'} ${h.name} on its row`)
          }
        />
      )}
    </>
  )
}
