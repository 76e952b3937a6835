import type { Channel } from '../api/types'
import type { Item } from '../controls/MenuEntry'
import { toggleLines } from '../lines/actions'
import { openMaker } from '../passages/actions'
import { sendOut } from '../prints/out'
import { remarkOn } from '../remarks/about'
import { dissolveGroup, makeGroup, sendTo } from '../routing/gestures'
import { cutClips } from '../sections/actions'
import { session } from '../session/store'
import { setView } from '../session/view'
import { duplicateRow, removeRow, setRow, takeInHand } from './rows'

/** How long a row can be taken in hand, in minutes. */
const hands = [
  ['an hour', 60],
  ['the day', 12 * 60],
] as const

/** What the menu of a row offers. */
export function rowItems(channel: Channel): Item[] {
  const returns = session().project!.channels.filter((c) => c.kind === 'return' && c.id !== channel.id)
  const own = channel.kind !== 'main'
  const print = (target: 'track' | 'file') =>
    setView({ dialog: { kind: 'print', channel: channel.id, target } })
  return [
    { text: 'Rename', key: 'N', run: () => setView({ renaming: channel.id }) },
    own && {
      text: 'Duplicate with everything on it',
      key: 'C',
      run: () => void duplicateRow(channel),
    },
    own && { text: 'Hide', run: () => void setRow(channel, { hidden: true }, 'Hide') },
    own && {
      text: channel.stereo ? 'Make it mono' : 'Make it stereo',
      run: () => void setRow(channel, { stereo: !channel.stereo }, 'Change the width of'),
    },
    { text: 'Lines: open or fold them', key: 'X', run: () => toggleLines(channel.id) },
    {
      text: 'A line for…',
      key: '⇧X',
      run: () => setView({ dialog: { kind: 'lines', row: channel.id } }),
    },
    {
      text: 'Make a passage of the range',
      key: '⇧L',
      run: () => openMaker([channel.id]),
    },
    own && {
      text: 'Send to a new return',
      key: 'S',
      run: () => setView({ dialog: { kind: 'send', rows: [channel.id] } }),
    },
    ...returns.map((r) => ({ text: `Send to ${r.name}`, run: () => void sendTo([channel], r) })),
    own && { text: 'Group the selected rows', key: 'A', run: () => void makeGroup() },
    channel.kind === 'group' && { text: 'Dissolve the group', run: () => void dissolveGroup(channel) },
    channel.clips.length > 0 && {
      text: 'Cut its clips where sections begin',
      run: () => void cutClips(channel),
    },
    channel.kind === 'track' && { text: 'Print to a new track', key: 'P', run: () => print('track') },
    { text: 'Export as a file', run: () => print('file') },
    channel.clips.length > 0 && {
      text: 'Work on it elsewhere: a file',
      run: () => void sendOut(channel),
    },
    ...(channel.hand
      ? [{ text: 'Let go of it: nobody is asked any more', run: () => void takeInHand(channel, 0) }]
      : hands.map(([text, minutes]) => ({
          text: `Take it in hand for ${text}`,
          says: 'Others see it, and are asked before they change the row. Nobody is locked out.',
          run: () => void takeInHand(channel, minutes),
        }))),
    {
      text: 'Say something about it',
      key: '⇧Z',
      run: () => remarkOn({ at: channel.id, from: 0, to: 0 }),
    },
    own && { text: 'Remove', run: () => void removeRow(channel) },
  ]
}
