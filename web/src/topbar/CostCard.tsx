import { useEffect, useState } from 'react'
import type { Lateness } from '../api/types'
import { Card } from '../controls/Card'
import { chainCost, percent, share } from '../controls/cost'
import { findStage, shownChain, stageName, stages } from '../document/chain'
import { select } from '../session/selected'
import { theEngine } from '../session/sound'
import { refused, useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { Ease } from '../waterline/Ease'

/** How late the sound leaves, and because of which stages: what runs beside them waits for them. */
function Late() {
  const project = useSession((s) => s.project)!
  const effects = useSession((s) => s.effects)
  const revision = useSession((s) => s.revision)
  const [late, setLate] = useState<Lateness | null>(null)
  useEffect(() => {
    theEngine()?.ask('waits', {}).then(setLate).catch(refused)
  }, [revision])
  if (!late) return null
  const ms = (frames: number) => `${((frames / project.sampleRate) * 1000).toFixed(1)} ms`
  const names = late.stages.flatMap((x) => {
    const found = findStage(project, x.stage)
    return found ? [`${stageName(found.stage, effects)} on ${found.channel.name} (${ms(x.frames)})`] : []
  })
  return (
    <p className="soft mt-2 text-small" data-testid="late">
      {late.frames === 0
        ? 'Nothing looks ahead: the sound leaves without delay.'
        : `The longest way takes ${late.frames} frames, ${ms(late.frames)}: ${names.join(', ')}. ` +
          `Everything beside it waits, so that all arrives together.`}
    </p>
  )
}

/** What the engine's time goes to, the dearest first. */
export function CostCard() {
  const project = useSession((s) => s.project)!
  const costs = useSession((s) => s.costs)
  const memory = useSession((s) => s.memory)
  const effects = useSession((s) => s.effects)
  const trials = useView((v) => v.trials)
  const blind = useView((v) => v.blind?.channel) // what it costs would tell
  const list = project.channels
    .filter((c) => c.id !== blind)
    .flatMap((c) =>
      [...stages(shownChain(c, trials).chain.nodes)].map((s) => ({ c, s, nanos: costs[s.id] ?? 0 })),
    )
    .filter((x) => x.nanos > 0)
    .sort((a, b) => b.nanos - a.nanos)
  const all = project.channels.reduce((sum, c) => sum + chainCost(c, trials, costs), 0)
  const top = list[0]?.nanos ?? 1
  return (
    <Card title="What the engine's time goes to" width={520}>
      <Ease />
      {list.length === 0 ? (
        <p className="soft">Nothing has been measured yet: press Play.</p>
      ) : (
        <>
          <p className="soft mb-2 text-small">
            All stages together take {percent(share(all, project.sampleRate))} of real time, measured in this
            browser. The engine holds {(memory / 1e6).toFixed(0)} MB of memory.
          </p>
          <table className="table table-xs">
            <tbody>
              {list.slice(0, 14).map(({ c, s, nanos }) => (
                <tr key={s.id}>
                  <td>
                    <button
                      className="text-left hover:underline"
                      onClick={() => {
                        select(c.id, s.id)
                        setView({ dialog: null, bench: true })
                      }}
                    >
                      {stageName(s, effects)} <span className="soft">on {c.name}</span>
                    </button>
                  </td>
                  <td className="w-[160px]">
                    <span
                      className="block h-[6px]"
                      style={{ width: `${(nanos / top) * 100}%`, background: 'var(--deep)' }}
                    />
                  </td>
                  <td className="figure text-right">{percent(share(nanos, project.sampleRate))}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      <Late />
    </Card>
  )
}
