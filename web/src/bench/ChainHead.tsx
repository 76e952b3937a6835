import type { Channel } from '../api/types'
import { clearMarks } from '../controls/Depth'
import { Menu } from '../controls/Menu'
import { chainCost, percent, share } from '../controls/cost'
import { idOf, shownChain } from '../document/chain'
import { showDepth } from '../session/listening'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { ReadyButton, RecordMenu } from '../takes/RecordMenu'
import { putWayIn, removeWayIn } from '../takes/wayIn'
import { TrialStrip } from '../trials/TrialStrip'
import { useBlind } from '../trials/actions'
import { LineMenu } from '../waterline/LineMenu'
import { putLine } from '../waterline/line'
import { paste } from './paste'
import { copyChain } from './several'
import { toggleChain } from './stages'

/** The head of a row's chain: what it is, what it costs, its trials, and what can be done with all of it. */
export function ChainHead({ channel }: { channel: Channel }) {
  const trials = useView((v) => v.trials)
  const costs = useSession((s) => s.costs)
  const rate = useSession((s) => s.project!.sampleRate)
  const depth = useView((v) => v.depth)
  const blind = useBlind(channel.id)
  const narrow = useView((v) => v.pinned !== '')
  const { owner, chain } = shownChain(channel, trials)
  const cost = chainCost(channel, trials, costs)
  const target = { channel: channel.id, owner }
  return (
    <div className="flex h-9 shrink-0 items-center gap-x-2 px-3.5 pt-1">
      <h2 className="text-head font-bold whitespace-nowrap">{channel.name}</h2>
      {!narrow && (
        <span className="soft line-clamp-2 min-w-[60px] text-small leading-[14px]">
          {channel.kind} · {channel.stereo ? 'stereo' : 'mono'}
          {cost > 0 && !blind ? ` · costs ${percent(share(cost, rate))}` : ''}
          {channel.printOf ? ` · printed from ${channel.printOf.name}` : ''}
        </span>
      )}
      <span className="ml-auto flex min-w-0 items-center gap-1.5 -my-1 overflow-x-auto px-0.5 py-1 [&>*]:shrink-0">
        <TrialStrip channel={channel} />
        {!blind && (
          <Menu
            label={`What to do with the chain of ${channel.name}`}
            className={`btn btn-xs font-normal ${chain.bypass ? 'btn-primary' : 'btn-outline'}`}
            items={[
              {
                text: chain.bypass ? 'Switch the chain on' : 'Bypass the chain',
                key: '⇧B',
                run: () => void toggleChain(channel),
              },
              chain.nodes.length > 0 &&
                !channel.waterline &&
                owner === channel.id && {
                  text: 'Print it behind the music: put the line',
                  key: 'P',
                  run: () => void putLine(idOf(chain.nodes.at(-1)!)),
                },
              {
                text: 'Presets of chains',
                key: '⇧W',
                run: () => setView({ dialog: { kind: 'presets', of: 'chain', target: owner } }),
              },
              {
                text: 'Presets of rows',
                key: 'Alt W',
                run: () => setView({ dialog: { kind: 'presets', of: 'channel', target: target.channel } }),
              },
              {
                text: depth === 'peak' ? 'Depth figures as mean levels' : 'Depth figures as peaks',
                key: '⇧E',
                run: () => showDepth(depth === 'peak' ? 'rms' : 'peak'),
              },
              { text: 'Clear held levels and marks', key: 'E', run: clearMarks },
              chain.nodes.length > 0 &&
                channel.kind === 'track' &&
                !channel.wayIn &&
                owner === channel.id && {
                  text: 'Record through it: put the way in',
                  key: '⇧I',
                  run: () => void putWayIn(idOf(chain.nodes.at(-1)!)),
                },
              !!channel.wayIn && { text: 'Take the way in away', run: () => void removeWayIn(channel) },
              { text: 'Copy the chain', run: () => void copyChain() },
              { text: 'Paste stages here', key: 'Ctrl V', run: () => void paste() },
            ]}
          >
            {chain.bypass ? 'Chain bypassed' : 'Chain'} ▾
          </Menu>
        )}
        {!blind && <LineMenu channel={channel} />}
        {channel.kind === 'track' && !blind && (
          <>
            <RecordMenu channel={channel} />
            <ReadyButton channel={channel} />
          </>
        )}
        {channel.kind === 'track' && (
          <button
            className="btn btn-xs btn-outline font-normal"
            onClick={() => setView({ dialog: { kind: 'print', channel: channel.id, target: 'track' } })}
            title="Print this row to a new track ( P )"
          >
            Print
          </button>
        )}
        {!narrow && (
          <button
            className="btn btn-xs btn-outline font-normal"
            onClick={() => setView({ dialog: { kind: 'print', channel: channel.id, target: 'file' } })}
          >
            Export
          </button>
        )}
      </span>
    </div>
  )
}
