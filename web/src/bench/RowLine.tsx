import { menuOnBench } from '../board/menuOnBench'
import type { Channel, Send } from '../api/types'
import { setRow } from '../board/rows'
import { Depth } from '../controls/Depth'
import { Menu } from '../controls/Menu'
import { ParamControl } from '../controls/ParamControl'
import { openSendOf, sendTo } from '../routing/gestures'
import { select } from '../session/selected'
import { theProject, useSession } from '../session/store'
import { useView } from '../session/view'

/** Level, pan, output and sends of the row, in one line. */
export function RowLine({ channel }: { channel: Channel }) {
  const project = useSession((s) => s.project)!
  const strip = useSession((s) => s.strip)
  const outs = project.channels.filter(
    (c) => (c.kind === 'main' || c.kind === 'group') && c.id !== channel.id,
  )
  const returns = project.channels.filter(
    (c) => c.kind === 'return' && c.id !== channel.id && !channel.sends.some((s) => s.to === c.id),
  )
  if (!strip) return null
  return (
    <div
      className="flex h-10 shrink-0 items-center gap-2 overflow-x-auto px-3.5 text-label"
      style={{ borderTop: '1px solid var(--hair)' }}
    >
      {[strip.fader, strip.pan].map((param) => (
        <ParamControl
          key={param.name}
          owner={channel.id}
          param={param}
          value={param === strip.pan ? channel.pan : channel.fader}
          of={channel.name}
          narrow
          label={param.label}
          caption={param.label}
        />
      ))}
      {channel.kind === 'main' ? (
        <span className="soft whitespace-nowrap">The main output is what is heard.</span>
      ) : (
        <>
          <label className="flex shrink-0 items-center gap-1.5">
            <span className="soft">to</span>
            <select
              className="select select-xs w-auto max-w-[120px] min-w-[76px] pr-6"
              aria-label="Output"
              value={channel.output}
              onChange={(e) => void setRow(channel, { output: e.target.value }, 'Change the output of')}
            >
              {outs.map((c) => (
                <option key={c.id} value={c.id}>
                  {c.name}
                </option>
              ))}
              <option value="">none</option>
            </select>
          </label>
          <span className="flex min-w-[120px] items-center gap-1.5 overflow-x-auto">
            {channel.sends.map((s) => (
              <SendPill key={s.id} send={s} channel={channel} />
            ))}
          </span>
          <Menu
            label="Send to"
            className="btn btn-xs btn-outline shrink-0 px-2 font-normal"
            items={[
              ...returns.map((r) => ({
                text: r.name,
                run: () => void sendTo([channel], r).then(() => openSendTo(channel.id, r.id)),
              })),
              { text: 'A new return', key: 'S', run: () => openSendOf([channel.id]) },
            ]}
          >
            Send to ▾
          </Menu>
        </>
      )}
    </div>
  )
}

/** Puts a row's send to a return on the bench, when it has been made. */
function openSendTo(row: string, to: string) {
  const made = theProject()
    ?.channels.find((c) => c.id === row)
    ?.sends.find((s) => s.to === to)
  if (made) select(row, made.id)
}

/** A send: where to, how much flows now, its level. Its name opens all that it has. */
function SendPill({ send, channel }: { send: Send; channel: Channel }) {
  const to = useSession((s) => s.project!.channels.find((c) => c.id === send.to)?.name ?? '?')
  const strip = useSession((s) => s.strip)!
  const selected = useView((v) => v.stage === send.id)
  return (
    <span
      className="flex h-7 shrink-0 items-center gap-1 rounded-full border pr-2 pl-1"
      style={{
        background: 'var(--card)',
        borderColor: selected ? 'var(--ink)' : 'var(--deep)',
        borderStyle: send.mute ? 'dashed' : 'solid',
        boxShadow: selected ? '0 0 0 1px var(--ink)' : undefined,
      }}
    >
      <button
        className={`water-label h-6 px-1.5 text-label whitespace-nowrap ${send.mute ? 'struck' : ''}`}
        aria-pressed={selected}
        aria-label={`Send to ${to}${send.mute ? ', muted' : ''}`}
        title={`The send to ${to}: pan, where it is taken, mute`}
        onClick={() => select(channel.id, selected ? '' : send.id)}
        onContextMenu={menuOnBench(channel.id, send.id, 'send')}
      >
        {to}
      </button>
      <Depth point={`send ${send.id}`} title="Peak sent, in dB below full scale" />
      <span className="w-[104px]">
        <ParamControl
          owner={send.id}
          param={strip.send}
          value={send.level}
          of={`the send from ${channel.name} to ${to}`}
          narrow
          label={`Level of the send to ${to}`}
        />
      </span>
    </span>
  )
}
