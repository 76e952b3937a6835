import type { Channel, Clip } from '../api/types'
import { Pick } from '../controls/Pick'
import * as actions from './actions'

const shapes = [
  { value: 's', text: 'S' },
  { value: 'power', text: 'even power' },
  { value: 'gain', text: 'even gain' },
] as const

const rules = [
  { value: '', text: 'as the row has it' },
  { value: 'sum', text: 'both sound' },
  { value: 'cover', text: 'it covers' },
  { value: 'fade', text: 'they cross-fade' },
] as const

/** What is chosen for clips: what happens where they overlap, where they come in, how their fades go. */
export function ClipPicks({ clips, channel }: { clips: Clip[]; channel: Channel }) {
  const first = clips[0]!
  return (
    <>
      <Pick
        label="Over another clip"
        says="What happens where it begins over another clip of its row: both sound, it covers the other, or they cross-fade."
        value={first.over ?? ''}
        choices={[...rules]}
        onPick={(over) => void actions.set('Overlap of', clips, () => ({ over: over as 'sum' }))}
      />
      <Pick
        label="Shape of the fade in"
        says="Even power keeps the loudness where two different sounds cross; even gain where both are the same."
        value={first.inShape ?? 's'}
        choices={[...shapes]}
        onPick={(inShape) => void actions.set('Fade in', clips, () => ({ inShape }))}
      />
      <Pick
        label="Shape of the fade out"
        says="Even power keeps the loudness where two different sounds cross; even gain where both are the same."
        value={first.outShape ?? 's'}
        choices={[...shapes]}
        onPick={(outShape) => void actions.set('Fade out', clips, () => ({ outShape }))}
      />
      <Pick
        label={`All clips of ${channel.name}`}
        says="What happens where clips of this row overlap, unless one says otherwise."
        value={channel.overlaps ?? 'sum'}
        choices={rules
          .slice(1)
          .map((r) => ({ ...r, text: r.value === 'cover' ? 'the later covers' : r.text }))}
        onPick={(v) => void actions.setOverlaps(channel, v as 'sum')}
      />
    </>
  )
}
