import type { Channel, Fields, Send } from '../api/types'
import { Depth } from '../controls/Depth'
import { Menu } from '../controls/Menu'
import { ParamControl } from '../controls/ParamControl'
import { copySend, sendTo, sendToStage } from '../routing/gestures'
import { sendPoint, usePoints, valueOf } from '../routing/taps'
import { change } from '../session/changes'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'

/** Level and pan of the row, and its sends with their live level. */
export function Sends({ channel }: { channel: Channel }) {
  const project = useSession((s) => s.project)!
  const strip = useSession((s) => s.strip)
  const returns = project.channels.filter((c) => c.kind === 'return' && c.id !== channel.id)
  if (!strip) return null
  return (
    <div className="flex h-[118px] shrink-0 gap-4 px-3.5 pb-2" style={{ borderTop: '1px solid var(--hair)' }}>
      <div className="flex w-[200px] shrink-0 flex-col justify-center gap-1">
        <ParamControl owner={channel.id} param={strip.fader} value={channel.fader} of={channel.name} />
        <ParamControl owner={channel.id} param={strip.pan} value={channel.pan} of={channel.name} />
      </div>
      <div className="min-w-0 flex-1 overflow-y-auto py-1">
        {channel.sends.map((s) => (
          <SendRow
            key={s.id}
            send={s}
            channel={channel}
            to={project.channels.find((c) => c.id === s.to)?.name ?? '?'}
          />
        ))}
        {channel.kind !== 'main' && (
          <div className="flex flex-wrap gap-1.5 pt-1">
            {returns
              .filter((r) => !channel.sends.some((s) => s.to === r.id))
              .map((r) => (
                <button
                  key={r.id}
                  className="btn btn-xs btn-outline font-normal"
                  onClick={() => void sendTo([channel], r)}
                >
                  Send to {r.name}
                </button>
              ))}
            <button
              className="btn btn-xs btn-outline font-normal"
              title="Make a return and send to it ( S )"
              onClick={() => setView({ dialog: { kind: 'send', rows: [channel.id] } })}
            >
              New return
            </button>
          </div>
        )}
        {channel.kind === 'main' && (
          <span className="soft text-small">The main output is what is heard.</span>
        )}
      </div>
    </div>
  )
}

function SendRow({ send, channel, to }: { send: Send; channel: Channel; to: string }) {
  const strip = useSession((s) => s.strip)!
  const project = useSession((s) => s.project)!
  const rows = useView((v) => v.rows)
  const others = project.channels.filter((c) => rows.includes(c.id) && c.id !== channel.id)
  const tracks = project.channels.filter((c) => c.kind === 'track' && c.id !== channel.id)
  const points = usePoints(channel.id)
  const at = sendPoint(send, points)
  const of = `the send from ${channel.name} to ${to}`
  const set = (what: Omit<Fields<'send.set'>, 'id'>, label: string) =>
    void change(`${label} ${of}`, { type: 'send.set', do: { id: send.id, ...what } })
  return (
    <div className="grid grid-cols-[74px_minmax(100px,1fr)_minmax(84px,0.7fr)_auto] items-end gap-2 pb-1.5">
      <span className="flex min-w-0 flex-col leading-tight">
        <span className={`water-label truncate ${send.mute ? 'struck' : ''}`} title={`Send to ${to}`}>
          {to}
        </span>
        <Depth point={`send ${send.id}`} title="Peak sent, in dB below full scale" />
      </span>
      <ParamControl owner={send.id} param={strip.send} value={send.level} of={of} />
      <ParamControl owner={send.id} param={strip.pan} value={send.pan} of={of} />
      <span className="flex gap-1">
        <select
          className="select select-xs w-[92px] pr-5"
          aria-label={`Where ${of} is taken`}
          title="Where on the row it is taken. After the fader it goes down with the row; before it, a ghost remains."
          value={at && valueOf(at)}
          onChange={(e) => {
            const { pre, after } = points[e.target.selectedIndex]!
            set({ pre, after }, 'Change where it is taken:')
          }}
        >
          {points.map((x) => (
            <option key={valueOf(x)} value={valueOf(x)}>
              {x.text}
            </option>
          ))}
        </select>
        <button
          className={`btn btn-xs px-1.5 font-normal ${send.mute ? 'btn-primary' : 'btn-outline'}`}
          aria-pressed={send.mute}
          onClick={() => set({ mute: !send.mute }, send.mute ? 'Unmute' : 'Mute')}
        >
          mute
        </button>
        <Menu
          label={`Menu of ${of}`}
          className="btn btn-xs btn-ghost px-1"
          items={[
            { text: 'Bring it back as a stage here', run: () => void sendToStage(send, to) },
            {
              text: `Copy to ${others.length} selected rows`,
              off: !others.length,
              run: () => void copySend(send.id, others, false),
            },
            {
              text: 'Copy there, silent',
              off: !others.length,
              run: () => void copySend(send.id, others, true),
            },
            { text: 'Copy to all tracks, silent', run: () => void copySend(send.id, tracks, true) },
            {
              text: 'Remove',
              run: () => void change(`Remove ${of}`, { type: 'send.remove', do: { id: send.id } }),
            },
          ]}
        >
          ⋯
        </Menu>
      </span>
    </div>
  )
}
