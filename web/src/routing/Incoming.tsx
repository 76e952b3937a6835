import type { Channel } from '../api/types'
import { toggleMute } from '../board/rows'
import { Depth } from '../controls/Depth'
import { ParamControl } from '../controls/ParamControl'
import { change } from '../session/changes'
import { select } from '../session/selected'
import { useSession } from '../session/store'

/** Everything that comes into a row, with its live level; sends are balanced here from the return's side. */
export function Incoming({ channel }: { channel: Channel }) {
  const project = useSession((s) => s.project)!
  const strip = useSession((s) => s.strip)
  const sends = project.channels.flatMap((c) =>
    c.sends.filter((s) => s.to === channel.id).map((s) => ({ c, s })),
  )
  const rows = project.channels.filter((c) => c.output === channel.id)
  if (!strip) return null
  return (
    <>
      <div className="flex items-center gap-2 text-small">
        <span className="soft">
          {sends.length > 0
            ? sends.length === 1
              ? 'One send comes in'
              : `${sends.length} sends come in`
            : `${rows.length} rows come in`}
        </span>
        <span className="soft ml-auto">in</span>
        <Depth point={`in ${channel.id}`} title="Level at the input" />
        <span className="soft">out</span>
        <Depth point={`post ${channel.id}`} title="Level behind the fader" />
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto pr-1">
        {sends.map(({ c, s }) => {
          const of = `the send from ${c.name} to ${channel.name}`
          return (
            <div
              key={s.id}
              className="grid grid-cols-[84px_28px_minmax(0,1fr)_46px] items-center gap-2 pb-0.5"
            >
              <button
                className={`h-[24px] truncate text-left text-small ${s.mute ? 'struck' : ''}`}
                title={`Select ${c.name}`}
                onClick={() => select(c.id)}
              >
                {c.name}
              </button>
              <Depth point={`send ${s.id}`} title="Peak sent" />
              <ParamControl
                owner={s.id}
                param={strip.send}
                value={s.level}
                of={of}
                label={`Sent by ${c.name}`}
                narrow
              />
              <button
                className={`btn btn-xs h-[24px] px-1.5 font-normal ${s.mute ? 'btn-primary' : 'btn-outline'}`}
                aria-pressed={s.mute}
                aria-label={`Mute ${of}`}
                onClick={() =>
                  void change(`${s.mute ? 'Unmute' : 'Mute'} ${of}`, {
                    type: 'send.set',
                    do: { id: s.id, mute: !s.mute },
                  })
                }
              >
                mute
              </button>
            </div>
          )
        })}
        {rows.map((c) => (
          <div key={c.id} className="grid grid-cols-[84px_28px_minmax(0,1fr)_46px] items-center gap-2 pb-0.5">
            <button
              className="h-[24px] truncate text-left text-small"
              onClick={() => select(c.id)}
              title={`Select ${c.name}`}
            >
              {c.name}
            </button>
            <Depth point={`post ${c.id}`} title="Level behind its fader" />
            <ParamControl
              owner={c.id}
              param={strip.fader}
              value={c.fader}
              of={c.name}
              label={`Level of ${c.name}, coming in`}
              narrow
            />
            <button
              className={`btn btn-xs h-[24px] px-1.5 font-normal ${c.mute ? 'btn-primary' : 'btn-outline'}`}
              aria-pressed={c.mute}
              aria-label={`Mute ${c.name}, coming in`}
              onClick={() => void toggleMute(c)}
            >
              mute
            </button>
          </div>
        ))}
        {sends.length + rows.length === 0 && (
          <p className="soft text-small">Nothing comes in yet. Select rows and press S to send them here.</p>
        )}
      </div>
    </>
  )
}
