import type { Channel, Clip } from '../api/types'
import { Menu } from '../controls/Menu'
import { setView } from '../session/view'
import * as treatment from './treatment'

/** What can be done with the treatment of clips. */
export function TreatmentMenu({ clips, row, shared }: { clips: Clip[]; row?: Channel; shared: number }) {
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
        { text: 'Take it off', off: none, run: () => void treatment.takeOff(clips) },
      ]}
    >
      ⋯
    </Menu>
  )
}
