import type { Channel } from '../api/types'
import { Menu } from '../controls/Menu'
import { useEntry } from '../controls/MenuEntry'
import { tints } from '../theme/tints'
import { rowItems } from './rowItems'
import { setRow } from './rows'

/** Everything that can be done with a row as a whole. */
export function RowMenu({ channel }: { channel: Channel }) {
  return (
    <Menu
      label={`Menu of ${channel.name}`}
      named={`row ${channel.id}`}
      className="soft h-6 min-w-6 shrink-0 leading-none"
      items={() => rowItems(channel)}
      foot={(shut) => (
        <div className="flex flex-row gap-0.5 px-1.5 py-1" role="group" aria-label="Tint">
          {tints.map((t, i) => (
            <Tint
              key={t}
              tint={t}
              place={i}
              on={channel.tint === i}
              run={() => {
                shut()
                void setRow(channel, { tint: i }, 'Tint')
              }}
            />
          ))}
        </div>
      )}
    >
      ⋯
    </Menu>
  )
}

function Tint(p: { tint: string; place: number; on: boolean; run: () => void }) {
  const name = p.place === 0 ? 'No tint' : `Tint ${p.place}`
  const look = useEntry(name)
  return (
    <button
      {...look}
      role="menuitemradio"
      aria-checked={p.on}
      className="grid h-6 w-6 place-items-center p-0"
      aria-label={name}
      onClick={p.run}
    >
      <span
        className="h-4 w-4 rounded-full border"
        style={{ background: p.tint, borderColor: 'var(--soft)', borderWidth: p.on ? 2 : 1 }}
      />
    </button>
  )
}
