import { useShallow } from 'zustand/react/shallow'
import type { Channel } from '../api/types'
import { ParamControl } from '../controls/ParamControl'
import * as moves from '../moves/actions'
import { useSession } from '../session/store'

/** What one handle takes of the row, in pixels. */
export const HANDLE = 160

/** How many there is room for beside the chain. */
const MOST = 3

export const useShownHandles = (channel: Channel) =>
  useSession(useShallow((s) => moves.shownOn(s.project, channel).slice(0, MOST)))

/** The handles of a row that it shows, as scales beside its chain. */
export function ShownHandles({ channel }: { channel: Channel }) {
  const strip = useSession((s) => s.strip)
  const handles = useShownHandles(channel)
  if (!strip || handles.length === 0) return null
  return (
    <span
      className="relative ml-auto flex h-full shrink-0 items-center"
      role="group"
      aria-label={`Handles of ${channel.name}`}
      onClick={(e) => e.stopPropagation()}
    >
      {handles.map((h) => (
        <span
          key={h.id}
          className="flex items-center gap-1.5 px-1"
          style={{ maxWidth: HANDLE, background: 'var(--shoal-1)' }}
        >
          <span className="water-label max-w-[48px] truncate text-small italic" title={h.name}>
            {h.name}
          </span>
          <span className="w-[104px]">
            <ParamControl
              owner={h.id}
              param={strip.handle}
              value={h.value}
              of={h.name}
              narrow
              label={`${h.name}, a handle of ${channel.name}`}
            />
          </span>
        </span>
      ))}
    </span>
  )
}
