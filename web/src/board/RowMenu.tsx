import { useShallow } from 'zustand/react/shallow'
import type { Channel } from '../api/types'
import { Menu } from '../controls/Menu'
import { useEntry } from '../controls/MenuEntry'
import { toggleLines } from '../lines/actions'
import { openMaker } from '../passages/actions'
import { sendOut } from '../prints/out'
import { remarkOn } from '../remarks/about'
import { dissolveGroup, makeGroup, sendTo } from '../routing/gestures'
import { cutClips } from '../sections/actions'
import { useSession } from '../session/store'
import { setView } from '../session/view'
import { tints } from '../theme/tints'
import { duplicateRow, removeRow, setRow, takeInHand } from './rows'

/** How long a row can be taken in hand, in minutes. */
const hands = [
  ['an hour', 60],
  ['the day', 12 * 60],
] as const

/** Everything that can be done with a row as a whole. */
export function RowMenu({ channel }: { channel: Channel }) {
  const returns = useSession(
    useShallow((s) => (s.project?.channels ?? []).filter((c) => c.kind === 'return' && c.id !== channel.id)),
  )
  const own = channel.kind !== 'main'
  const print = (target: 'track' | 'file') =>
    setView({ dialog: { kind: 'print', channel: channel.id, target } })
  return (
    <Menu
      label={`Menu of ${channel.name}`}
      named={`row ${channel.id}`}
      className="soft h-6 min-w-6 shrink-0 leading-none"
      items={[
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
      ]}
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
