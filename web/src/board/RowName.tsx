import type { Channel } from '../api/types'
import { setView } from '../session/view'
import { setRow } from './rows'

/** A row's name being given: Enter takes it, Escape leaves the old one. */
export function RowName({ channel }: { channel: Channel }) {
  return (
    <input
      autoFocus
      className="input input-xs w-full"
      aria-label="Name of the row"
      defaultValue={channel.name}
      onFocus={(e) => e.target.select()}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Enter') e.currentTarget.blur()
        if (e.key === 'Escape') {
          e.currentTarget.value = channel.name
          e.currentTarget.blur()
        }
      }}
      onBlur={(e) => {
        const name = e.target.value.trim()
        setView({ renaming: '' })
        if (name && name !== channel.name) void setRow(channel, { name }, 'Rename')
      }}
    />
  )
}
