import { useState } from 'react'
import type { Channel, Param, Stage } from '../api/types'
import { ParamControl } from '../controls/ParamControl'
import * as act from '../live/actions'
import { effectOf, stageName, useSession } from '../live/session'
import { setView } from '../live/view'
import { PictureView } from './PictureView'

/** The selected stage: its picture first, its parameters as scales beside it. */
export function StagePanel({ stage, channel }: { stage: Stage; channel: Channel }) {
  const effects = useSession((s) => s.effects)
  const strip = useSession((s) => s.strip)
  const effect = effectOf(stage, effects)
  const groups = [...new Set((effect?.params ?? []).map((p) => p.group ?? ''))].filter(Boolean)
  const [group, setGroup] = useState(groups[2] ?? groups[0] ?? '')
  if (!effect || !strip) return null
  const shown = effect.params.filter((p) => !p.group || p.group === group)
  const value = (p: Param) => stage.params[p.name] ?? p.default
  const name = stageName(stage, effects)
  return (
    <div className="flex h-full flex-col px-3.5 pt-2.5 pb-2">
      <div className="mb-1.5 flex items-center gap-2">
        <h2 className="truncate text-[15px] font-bold">{name}</h2>
        <span className="soft truncate text-[12px]">
          on {channel.name}
          {stage.name && stage.name !== effect.name ? ` · ${effect.name}` : ''}
        </span>
        <span className="ml-auto flex shrink-0 gap-1">
          <span className="flex gap-1">
            <button
              className={`btn btn-xs min-h-6 w-9 px-0 ${stage.bypass ? 'btn-outline font-normal' : 'btn-primary'}`}
              aria-pressed={!stage.bypass}
              onClick={() => stage.bypass && act.toggleBypass(stage.id)}
            >
              In
            </button>
            <button
              className={`btn btn-xs min-h-6 w-9 px-0 ${stage.bypass ? 'btn-primary' : 'btn-outline font-normal'}`}
              aria-pressed={stage.bypass}
              onClick={() => !stage.bypass && act.toggleBypass(stage.id)}
              title="Bypass ( B )"
            >
              Out
            </button>
          </span>
          <Menu stage={stage} />
        </span>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[220px_minmax(0,1fr)] gap-4">
        <PictureView stage={stage} effect={effect} onGroup={(i) => groups[i] && setGroup(groups[i])} />
        <div className="min-h-0 overflow-y-auto pr-1">
          {groups.length > 0 && (
            <div className="mb-1 flex gap-0.5" role="tablist" aria-label="Bands">
              {groups.map((g, i) => (
                <button
                  key={g}
                  role="tab"
                  aria-selected={g === group}
                  className={`btn btn-xs w-[26px] px-0 ${g === group ? 'btn-primary' : 'btn-ghost font-normal'}`}
                  title={g}
                  onClick={() => setGroup(g)}
                >
                  {i + 1}
                </button>
              ))}
            </div>
          )}
          <div className="flex flex-col gap-1">
            {shown.map((p) => (
              <ParamControl key={p.name} owner={stage.id} param={p} value={value(p)} of={name} />
            ))}
            <ParamControl
              owner={stage.id}
              param={{ ...strip.mix, default: effect.mix }}
              value={stage.mix}
              of={name}
            />
            <label
              className="grid grid-cols-[minmax(0,1fr)_112px] items-center gap-2 text-[12px]"
              title="Blend fades from dry to wet; add leaves the dry signal as it is and adds the wet."
            >
              Mix law
              <select
                className="select select-xs w-full"
                value={stage.mixLaw}
                onChange={(e) =>
                  void act.setStage(stage.id, { mixLaw: e.target.value }, 'Change the mix law of')
                }
              >
                <option value="blend">blend</option>
                <option value="add">add</option>
              </select>
            </label>
          </div>
        </div>
      </div>
    </div>
  )
}

function Menu({ stage }: { stage: Stage }) {
  const item = (text: string, run: () => void) => (
    <li>
      <button
        onClick={() => {
          ;(document.activeElement as HTMLElement | null)?.blur()
          run()
        }}
      >
        {text}
      </button>
    </li>
  )
  const at = act.placeOf(stage.id)
  return (
    <span className="dropdown dropdown-end dropdown-top">
      <button tabIndex={0} className="btn btn-xs btn-ghost" aria-label="Menu of the stage">
        ⋯
      </button>
      <ul
        tabIndex={0}
        className="dropdown-content menu menu-sm z-40 w-44 rounded border p-1"
        style={{ background: 'var(--card)', borderColor: 'var(--hair)' }}
      >
        {item('Name it', () => setView({ renaming: stage.id }))}
        {item(
          'Replace it',
          () =>
            at &&
            setView({ dialog: { kind: 'effects', owner: at.owner, index: at.index, replace: stage.id } }),
        )}
        {item('Duplicate', () => void act.duplicateStage(stage.id))}
        {item('Earlier', () => act.shiftStage(stage.id, -1))}
        {item('Later', () => act.shiftStage(stage.id, 1))}
        {item('Remove', () => void act.removeStage(stage.id))}
      </ul>
    </span>
  )
}
