import type { Channel } from '../api/types'
import { Menu } from '../controls/Menu'
import { chainsOf, shownChain } from '../document/chain'
import { setView, useViewOf } from '../session/view'
import * as trial from './actions'

/** The alternatives of a chain as letters: the one that is lit is heard. */
export function TrialStrip({ channel }: { channel: Channel }) {
  const { trials, matching, matches, blind } = useViewOf('trials', 'matching', 'matches', 'blind')
  const all = chainsOf(channel)
  const shown = shownChain(channel, trials)
  const hidden = blind?.channel === channel.id ? blind : null
  const match = matches[channel.id]?.[shown.owner === channel.id ? '' : shown.owner] ?? 0
  const order = hidden ? hidden.order.filter((o) => all.some((x) => x.owner === o)) : all.map((x) => x.owner)
  return (
    <span className="flex shrink-0 items-center gap-1.5">
      {all.length > 1 && (
        <span className="flex gap-0.5" role="group" aria-label="Trials">
          {order.map((owner, i) => {
            const x = all.find((c) => c.owner === owner)!
            const name = hidden ? String(i + 1) : x.letter
            const what = hidden
              ? `Alternative ${i + 1}`
              : owner === channel.id
                ? `${x.letter}, the chain`
                : `Trial ${x.letter}`
            return (
              <button
                key={owner}
                className={`btn btn-xs min-h-[24px] w-[26px] px-0 ${owner === shown.owner ? 'btn-primary' : 'btn-outline font-normal'}`}
                aria-pressed={owner === shown.owner}
                aria-label={`Hear ${what}`}
                title={`Hear ${what} ( Y for the next )`}
                onClick={() => trial.hear(channel.id, owner)}
              >
                {name}
              </button>
            )
          })}
        </span>
      )}
      {all.length > 1 && !hidden && (
        <button
          className={`btn btn-xs font-normal ${matching ? 'btn-secondary' : 'btn-outline'}`}
          aria-pressed={matching}
          title="Trials are brought to the loudness of the chain while they are compared; never in a print"
          onClick={() => trial.setMatching(!matching)}
        >
          {matching
            ? `Matched ${match > 0 ? '+' : match < 0 ? '−' : ''}${Math.abs(match).toFixed(1)} dB`
            : 'Not matched'}
        </button>
      )}
      {hidden ? (
        <Menu
          label="Choose one of those compared blind"
          items={[
            ...order.map((owner, i) => ({
              text: `I choose ${i + 1}`,
              run: () => trial.choose(channel, owner),
            })),
            { text: 'I hear no difference', run: () => trial.choose(channel, null) },
          ]}
        >
          Choose ▾
        </Menu>
      ) : (
        <Menu
          label={`Trials of ${channel.name}`}
          items={[
            {
              text: 'Keep a copy as a trial',
              key: '⇧O',
              off: channel.trials.length >= 3,
              run: () => void trial.keep(channel),
            },
            {
              text: 'Same stages, other order',
              key: 'O',
              off: channel.trials.length >= 3 || shown.chain.nodes.length < 2,
              run: () => void trial.keepOtherOrder(channel),
            },
            all.length > 1
              ? {
                  text: 'Compare in figures',
                  run: () => setView({ dialog: { kind: 'compare', channel: channel.id } }),
                }
              : null,
            all.length > 1 ? { text: 'Compare blind', run: () => trial.goBlind(channel) } : null,
            all.length > 1
              ? { text: 'Match loudness again', run: () => void trial.measure(channel.id) }
              : null,
            shown.owner !== channel.id
              ? { text: `Make ${shown.letter} the chain`, run: () => void trial.take(channel, shown.owner) }
              : null,
            shown.owner !== channel.id
              ? { text: `Drop ${shown.letter}`, run: () => void trial.drop(channel, shown.owner) }
              : null,
          ]}
        >
          Trials ▾
        </Menu>
      )}
    </span>
  )
}
