import { remarkOn } from '../remarks/about'
import type { Channel, Send } from '../api/types'
import { Menu } from '../controls/Menu'
import { ParamControl } from '../controls/ParamControl'
import { Pick } from '../controls/Pick'
import { copySend, sendToStage } from '../routing/gestures'
import * as sends from '../routing/sends'
import { sendPoint, usePoints, valueOf } from '../routing/taps'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { PanelHead } from './PanelHead'

/** A send on the bench: its level and pan, where on the row it is taken, and what can be done with it. */
export function SendPanel({ send, channel }: { send: Send; channel: Channel }) {
  const project = useSession((s) => s.project)!
  const strip = useSession((s) => s.strip)
  const rows = useView((v) => v.rows)
  const to = project.channels.find((c) => c.id === send.to)
  const others = project.channels.filter((c) => rows.includes(c.id) && c.id !== channel.id)
  const tracks = project.channels.filter((c) => c.kind === 'track' && c.id !== channel.id)
  const points = usePoints(channel.id)
  const at = sendPoint(send, points)
  if (!strip || !to) return null
  const of = sends.inWords(send, channel)
  return (
    <div
      className="flex h-full flex-col px-3.5 pt-2 pb-1.5"
      data-panel={send.id}
      role="group"
      aria-label={`Send from ${channel.name} to ${to.name}`}
    >
      <PanelHead title={`To ${to.name}`} of={`send of ${channel.name}`}>
        <button className="btn btn-xs btn-outline font-normal" onClick={() => select(to.id)}>
          Show {to.name}
        </button>
        <button
          className={`btn btn-xs font-normal ${send.mute ? 'btn-primary' : 'btn-outline'}`}
          aria-pressed={send.mute}
          title="Mute it ( Q )"
          onClick={() => void sends.toggleMute(send, channel)}
        >
          mute
        </button>
        <Menu
          label={`Menu of ${of}`}
          named={`send ${send.id}`}
          className="btn btn-xs btn-ghost px-1"
          items={[
            {
              text: 'Say something about it',
              key: '⇧Z',
              run: () => remarkOn({ at: send.id, from: 0, to: 0 }),
            },
            { text: 'Bring it back as a stage here', run: () => void sendToStage(send, to.name) },
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
              key: 'Del',
              run: () => void sends.remove(send, channel),
            },
          ]}
        >
          ⋯
        </Menu>
      </PanelHead>
      <div className="grid grid-cols-2 gap-x-5 gap-y-1">
        <ParamControl owner={send.id} param={strip.send} value={send.level} of={of} />
        <ParamControl owner={send.id} param={strip.pan} value={send.pan} of={of} />
        <Pick
          label={`Where ${of} is taken`}
          says="Where on the row it is taken. After the fader it goes down with the row; before it, a ghost remains."
          value={at ? valueOf(at) : ''}
          choices={points.map((x) => ({ value: valueOf(x), text: x.text }))}
          onPick={(v) => {
            const { pre, after } = points.find((x) => valueOf(x) === v)!
            void sends.set(send, channel, { pre, after }, 'Change where it is taken:')
          }}
        />
      </div>
    </div>
  )
}
