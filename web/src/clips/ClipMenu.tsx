import type { Channel, Clip } from '../api/types'
import { Menu } from '../controls/Menu'
import { sendOut } from '../prints/out'
import { remarkOn } from '../remarks/about'
import { setView, view } from '../session/view'
import { onShelf } from '../shelf/open'
import { openTakesOfChosen } from '../takes/takes'
import * as actions from './actions'
import { copyClips } from './copy'
import { bringBack, printInPlace } from './permanent'
import { backwards } from './treatment'

/** What can be done with the selected clips. */
export function ClipMenu({ clips, channel, title }: { clips: Clip[]; channel: Channel; title: string }) {
  const first = clips[0]!
  return (
    <Menu
      label={`Menu of ${title}`}
      named="clip"
      className="btn btn-xs btn-ghost px-1"
      items={[
        { text: 'Name it', key: 'N', run: () => setView({ renaming: first.id }), off: clips.length > 1 },
        { text: 'Copy', key: 'Ctrl C', run: () => void copyClips() },
        { text: 'Once more behind itself', key: 'U', run: () => void actions.again() },
        {
          text: 'Slice it',
          key: 'Y',
          run: () => setView({ dialog: { kind: 'slices', clips: clips.map((c) => c.id) } }),
        },
        {
          text: 'Repeat it',
          key: 'C',
          run: () => setView({ dialog: { kind: 'repeats', clip: first.id } }),
          off: clips.length > 1,
        },
        { text: 'Print it where it stands', key: 'P', run: () => void printInPlace(clips) },
        {
          text: 'Say something about it',
          key: '⇧Z',
          run: () => remarkOn({ at: first.id, from: 0, to: 0 }),
          off: clips.length > 1,
        },
        { text: 'Put it on the shelf', key: 'W', run: () => onShelf(clips) },
        { text: 'Work on it elsewhere: a file', run: () => void sendOut(channel, clips) },
        {
          text: 'Where it comes from',
          key: 'T',
          run: () => actions.traceBack(clips),
          off: clips.length > 1,
        },
        { text: 'Its takes', key: '⇧T', run: openTakesOfChosen, off: clips.length > 1 || !first.take },
        {
          text: 'One round back',
          run: () => void bringBack(clips),
          off: !clips.some((c) => c.made),
        },
        { text: 'Play it backwards', run: () => void backwards(clips) },
        { text: 'Fit it to whole bars', run: () => void actions.fitToBars(clips) },
        {
          text: 'Fit it to the loop',
          run: () => void actions.fitToLoop(first),
          off: clips.length > 1 || !view().loop,
        },
        { text: 'In reverse order', run: () => void actions.order('reverse'), off: clips.length < 2 },
        { text: 'Shuffle', key: 'O', run: () => void actions.order('shuffle'), off: clips.length < 2 },
        { text: 'To the nearest place of the grid', run: () => void actions.order('grid') },
        {
          text: 'Join with its neighbours',
          key: '⇧I',
          run: () => void actions.join(),
          off: clips.length < 2,
        },
        {
          text: 'Open the air of its row',
          key: '⇧↓',
          run: () => setView((v) => ({ airs: { ...v.airs, [channel.id]: 'open' } })),
        },
        { text: 'No swell', run: () => void actions.set('No swell on', clips, () => ({ swell: [] })) },
        { text: 'Remove', key: 'Del', run: () => actions.remove(clips) },
      ]}
    >
      ⋯
    </Menu>
  )
}
