import type { Channel } from '../api/types'
import * as act from '../live/actions'
import { useSession } from '../live/session'
import { setView } from '../live/view'
import { dissolveGroup, makeGroup } from '../routing/gestures'
import { tints } from './RowHead'

/** Everything that can be done with a row as a whole. */
export function RowMenu({ channel }: { channel: Channel }) {
  const channels = useSession((s) => s.project?.channels)
  const returns = (channels ?? []).filter((c) => c.kind === 'return' && c.id !== channel.id)
  const shut = () => (document.activeElement as HTMLElement | null)?.blur()
  const item = (text: string, run: () => void) => (
    <li>
      <button
        onClick={(e) => {
          e.stopPropagation()
          shut()
          run()
        }}
      >
        {text}
      </button>
    </li>
  )
  return (
    <span className="dropdown dropdown-right">
      <button
        tabIndex={0}
        className="soft px-0.5 leading-none"
        aria-label={`Menu of ${channel.name}`}
        onClick={(e) => e.stopPropagation()}
      >
        ⋯
      </button>
      <ul
        tabIndex={0}
        className="dropdown-content menu menu-sm z-40 w-56 rounded border p-1 shadow-sm"
        style={{ background: 'var(--card)', borderColor: 'var(--hair)' }}
      >
        {item('Rename', () => setView({ renaming: channel.id }))}
        {channel.kind !== 'main' && (
          <>
            {item('Duplicate with everything on it', () => void act.duplicateRow(channel))}
            {item('Hide', () => void act.setRow(channel, { hidden: true }, 'Hide'))}
            {item(
              channel.stereo ? 'Make it mono' : 'Make it stereo',
              () => void act.setRow(channel, { stereo: !channel.stereo }, 'Change the width of'),
            )}
          </>
        )}
        {channel.kind !== 'main' &&
          item('Send to a new return', () => setView({ dialog: { kind: 'send', rows: [channel.id] } }))}
        {channel.kind !== 'main' && item('Group the selected rows', () => void makeGroup())}
        {channel.kind === 'group' && item('Dissolve the group', () => void dissolveGroup(channel))}
        {returns.map((r) => (
          <li key={r.id}>
            <button
              onClick={() => {
                shut()
                void act.addSend(channel, r)
              }}
            >
              Send to {r.name}
            </button>
          </li>
        ))}
        {channel.kind === 'track' &&
          item('Print to a new track', () =>
            setView({ dialog: { kind: 'print', channel: channel.id, target: 'track' } }),
          )}
        {item('Export as a file', () =>
          setView({ dialog: { kind: 'print', channel: channel.id, target: 'file' } }),
        )}
        {channel.kind !== 'main' && item('Remove', () => void act.removeRow(channel))}
        <li className="flex flex-row gap-1 px-2 py-1">
          {tints.map((t, i) => (
            <button
              key={t}
              className="h-4 w-4 rounded-full border p-0"
              style={{ background: t, borderColor: 'var(--soft)' }}
              aria-label={i === 0 ? 'No tint' : `Tint ${i}`}
              onClick={() => {
                shut()
                void act.setRow(channel, { tint: i }, 'Tint')
              }}
            />
          ))}
        </li>
      </ul>
    </span>
  )
}
