import type { Channel, Clip } from '../api/types'
import { Menu } from '../controls/Menu'
import { useSession } from '../session/store'
import { setView } from '../session/view'
import { bringBack, makePermanent, workWhenAsked } from './permanent'
import * as treatment from './treatment'

/** What can be done with the treatment of clips. */
export function TreatmentMenu({ clips, row, shared }: { clips: Clip[]; row?: Channel; shared: number }) {
  const whenAsked = useSession((s) => s.project?.workWhenAsked ?? false)
  const made = clips.filter((c) => c.made)
  const none = !clips.some((c) => c.treatment)
  return (
    <Menu
      label="Menu of the treatment"
      className="btn btn-xs btn-ghost px-1"
      items={[
        { text: 'Make it its own', off: shared < 2, run: () => void treatment.own(clips) },
        { text: 'Remember it for other clips', off: none, run: () => treatment.keep(clips[0]!) },
        {
          text: 'Put the remembered one here, shared',
          off: !treatment.hasKept(),
          run: () => void treatment.put(false),
        },
        { text: 'Put it here as a copy', off: !treatment.hasKept(), run: () => void treatment.put(true) },
        {
          text: 'Presets of chains',
          off: !row,
          run: () => row && setView({ dialog: { kind: 'presets', of: 'chain', target: row.id } }),
        },
        {
          text: 'Make it permanent',
          off: none,
          run: () => void makePermanent(clips.filter((c) => c.treatment)),
        },
        { text: 'Bring back what it was made from', off: !made.length, run: () => void bringBack(made) },
        {
          text: whenAsked ? 'Work out a moment after each change' : 'Work out only when asked',
          run: () => void workWhenAsked(!whenAsked),
        },
        { text: 'Take it off', off: none, run: () => void treatment.takeOff(clips) },
      ]}
    >
      ⋯
    </Menu>
  )
}
