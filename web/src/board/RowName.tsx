import type { Channel } from '../api/types'
import * as act from '../live/actions'
import { setView } from '../live/view'

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
        if (name && name !== channel.name) void act.setRow(channel, { name }, 'Rename')
      }}
    />
  )
}
