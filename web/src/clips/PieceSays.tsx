import type { Channel, Clip } from '../api/types'
import { Toggle } from '../controls/Pick'
import { select } from '../session/selected'
import * as actions from './actions'
import { WorkOfClips } from './WorkOfClips'

/** Where the piece goes, and how it ends. */
export function PieceSays({ clips, channel, row }: { clips: Clip[]; channel: Channel; row?: Channel }) {
  const rings = clips.every((c) => c.rings)
  return (
    <div
      className="flex h-[37px] shrink-0 items-center gap-4 px-3.5 text-label"
      style={{ borderTop: '1px solid var(--hair)' }}
    >
      <span className="soft whitespace-nowrap">
        {row ? 'source, treatment, then ' : 'source, then '}
        <button className="water-label h-6 underline" onClick={() => select(channel.id)}>
          {channel.name}
        </button>
      </span>
      <select
        className="select select-xs w-auto shrink-0 pr-6"
        aria-label="Comes into its row"
        title="Before the chain it passes all that stands on its row; behind it, only the fader and what follows."
        value={clips[0]!.enters ?? ''}
        onChange={(e) =>
          void actions.set('Change where they enter:', clips, () => ({ enters: e.target.value }))
        }
      >
        <option value="">before its chain</option>
        <option value="behind">behind its chain</option>
      </select>
      <WorkOfClips clips={clips} />
      <span className="ml-auto w-[220px] shrink-0">
        <Toggle
          label="Rings on after its end"
          says="What its treatment still holds where the clip ends is heard; else it is cut there."
          on={rings}
          onSet={(on) => void actions.set(on ? 'Let ring' : 'Cut at the end', clips, () => ({ rings: on }))}
        />
      </span>
    </div>
  )
}
