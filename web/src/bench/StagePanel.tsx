import { useState } from 'react'
import type { Channel, Param, Stage } from '../api/types'
import { ParamControl } from '../controls/ParamControl'
import { effectOf, stageName } from '../document/chain'
import { useSession } from '../session/store'
import { PictureView } from './PictureView'
import { StageFoot } from './StageFoot'
import { StageHead } from './StageHead'
import { useHint } from './useHint'

/** A stage on the bench: its picture first, its parameters as scales beside it. */
export function StagePanel({ stage, channel, pinned }: { stage: Stage; channel: Channel; pinned?: boolean }) {
  const effects = useSession((s) => s.effects)
  const moving = useSession((s) => s.moving)
  const effect = effectOf(stage, effects)
  const groups = [...new Set((effect?.params ?? []).map((p) => p.group ?? ''))].filter(Boolean)
  // the first group with something in it that differs from the defaults, or the third band of eight
  const [group, setGroup] = useState(groups.length === 8 ? groups[2]! : (groups[0] ?? ''))
  const { hint, watch } = useHint()
  if (!effect) return <p className="soft p-5">This program does not know the effect {stage.effect}.</p>
  const value = (p: Param) => moving[`${stage.id} ${p.name}`] ?? stage.params[p.name] ?? p.default
  const matters = (p: Param) => {
    const other = p.when && effect.params.find((x) => x.name === p.when!.name)
    return !other || p.when!.is.includes(value(other))
  }
  const shown = effect.params.filter((p) => (!p.group || p.group === group) && matters(p))
  const name = stageName(stage, effects)
  return (
    <div
      className="flex h-full flex-col px-3.5 pt-2.5 pb-2"
      data-panel={stage.id}
      role="group"
      aria-label={`${name} on ${channel.name}`}
      {...watch}
    >
      <StageHead stage={stage} channel={channel} effect={effect} pinned={pinned} />
      <div className="grid min-h-0 flex-1 grid-cols-[220px_minmax(0,1fr)] gap-4">
        <PictureView
          stage={stage}
          effect={effect}
          watched={!pinned}
          hint={hint}
          onGroup={(g) => groups.includes(g) && setGroup(g)}
        />
        <div className="min-h-0 overflow-y-auto pr-1">
          {groups.length > 1 && (
            <div className="mb-1 flex flex-wrap gap-0.5" role="tablist" aria-label="Groups">
              {groups.map((g, i) => (
                <button
                  key={g}
                  role="tab"
                  aria-selected={g === group}
                  className={`btn btn-xs w-[21px] px-0 ${g === group ? 'btn-primary' : 'btn-ghost font-normal'}`}
                  title={g}
                  onClick={() => setGroup(g)}
                >
                  {i + 1}
                </button>
              ))}
            </div>
          )}
          <div className="flex flex-col gap-1">
            {shown
              .filter((p) => !p.group)
              .concat(groups.length === 1 ? [] : shown.filter((p) => p.group))
              .map((p) => (
                <ParamControl key={p.name} owner={stage.id} param={p} value={value(p)} of={name} />
              ))}
            <StageFoot stage={stage} effect={effect} name={name} />
            {groups.length === 1 && (
              <details>
                <summary className="soft cursor-pointer text-small">{groups[0]}, value by value</summary>
                {shown
                  .filter((p) => p.group)
                  .map((p) => (
                    <ParamControl key={p.name} owner={stage.id} param={p} value={value(p)} of={name} />
                  ))}
              </details>
            )}
          </div>
        </div>
      </div>
    </div>
  )
}
