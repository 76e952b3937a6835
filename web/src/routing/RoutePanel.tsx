import { PanelHead } from '../bench/PanelHead'
import type { Channel } from '../api/types'
import { setRow } from '../board/rows'
import { Toggle } from '../controls/Pick'
import { change } from '../session/changes'
import { setView, useViewOf } from '../session/view'
import { Hearing } from './Hearing'
import { Incoming } from './Incoming'
import { TapPick } from './TapPick'
import { dissolveGroup, openTrace } from './gestures'

/** Where a row's signal comes from, and what of it is heard: on the bench while nothing of the row is selected. */
export function RoutePanel({ channel }: { channel: Channel }) {
  const { dry, share } = useViewOf('dry', 'share')
  const gathers = channel.kind === 'return' || channel.kind === 'group' || channel.kind === 'main'
  return (
    <div
      className="flex h-full flex-col px-3.5 pt-2 pb-1.5"
      role="group"
      aria-label={`Routing of ${channel.name}`}
    >
      <PanelHead title={channel.name} of={gathers ? 'what comes in' : 'where it comes from, what is heard'}>
        {channel.kind !== 'main' && (
          <button
            className="btn btn-xs btn-outline font-normal"
            onClick={openTrace}
            title="Every gain on the way ( T )"
          >
            Trace it
          </button>
        )}
        {channel.kind === 'group' && (
          <button className="btn btn-xs btn-outline font-normal" onClick={() => void dissolveGroup(channel)}>
            Dissolve the group
          </button>
        )}
        <button
          className="btn btn-xs btn-outline font-normal"
          onClick={() => setView({ dialog: { kind: 'presets', of: 'channel', target: channel.id } })}
          title="Chain, level, pan, width, solo and tint in one"
        >
          Presets of rows
        </button>
      </PanelHead>
      <div className="flex min-h-0 flex-1 flex-col gap-1.5">
        {gathers ? <Incoming channel={channel} /> : channel.kind === 'track' && <TakesIn channel={channel} />}
        {(!gathers || channel.kind === 'return') && (
          <Hearing channel={channel} dry={dry === channel.id} share={share === channel.id} />
        )}
      </div>
      {channel.kind !== 'main' && <Solo channel={channel} />}
    </div>
  )
}

const TakesIn = ({ channel }: { channel: Channel }) => (
  <TapPick
    label="Takes in"
    says="Besides its clips: the signal at a point of another row. That makes this a side track."
    tap={channel.input}
    none="its clips only"
    without={channel.id}
    onPick={(input) =>
      change(`Change what ${channel.name} takes in`, {
        type: 'channel.input',
        do: { channel: channel.id, input: input ?? undefined },
      })
    }
  />
)

/** What solo and mute of the row mean. */
const Solo = ({ channel }: { channel: Channel }) => (
  <div className="grid grid-cols-2 gap-x-5 pt-1" style={{ borderTop: '1px solid var(--hair)' }}>
    <Toggle
      label="Heard while others are soloed"
      says="Soloing other rows leaves it open. So it is for returns, as a rule: the reverb of what is soloed is heard."
      on={channel.soloSafe}
      onSet={(soloSafe) => setRow(channel, { soloSafe }, 'Change solo of')}
    />
    <Toggle
      label="Mute stops sends before the fader too"
      says="Else a muted row is still heard through the sends that it has before its fader."
      on={channel.mutePre}
      onSet={(mutePre) => setRow(channel, { mutePre }, 'Change what mute does on')}
    />
  </div>
)
