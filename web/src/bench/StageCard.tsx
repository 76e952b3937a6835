import type { Channel, Stage } from '../api/types'
import { besides, carryStage } from '../board/carry'
import { MiniPicture } from '../board/MiniPicture'
import { percent, share } from '../controls/cost'
import * as act from '../live/actions'
import { pick } from '../live/pick'
import { stageName, useSession } from '../live/session'
import { setView, useView } from '../live/view'

type Props = {
  stage: Stage
  channel: Channel
  owner: string
  index: number
  off: boolean
  /** In pixels: long chains have narrower cards. */
  width: number
}

/** A stage on the bench: name, picture, mix and what it costs. */
export function StageCard({ stage, channel, owner, index, off, width }: Props) {
  const effects = useSession((s) => s.effects)
  const rate = useSession((s) => s.project!.sampleRate)
  const cost = useSession((s) => s.costs[stage.id])
  const selected = useView((v) => v.stage === stage.id)
  const together = useView((v) => v.together.includes(stage.id))
  const listened = useView((v) => v.listening?.node === stage.id)
  const renaming = useView((v) => v.renaming === stage.id)
  const name = stageName(stage, effects)
  const hollow = stage.bypass || off
  return (
    <div
      role="button"
      tabIndex={0}
      draggable={!renaming}
      aria-pressed={selected || together}
      aria-label={`${name}${hollow ? ', bypassed' : ''}${listened ? ', listened to' : ''}, place ${index + 1}`}
      className="flex h-[70px] shrink-0 flex-col justify-between rounded-[3px] border px-2 py-1.5"
      style={{
        width,
        background: hollow ? 'transparent' : together ? 'var(--shoal-2)' : 'var(--card)',
        borderColor: selected ? 'var(--ink)' : 'var(--deep)',
        borderStyle: hollow ? 'dashed' : 'solid',
        boxShadow: selected ? '0 0 0 1.5px var(--ink)' : together ? '0 0 0 1.5px var(--deep)' : undefined,
      }}
      onClick={(e) => pick(e, channel.id, stage.id)}
      onFocus={() => !together && act.select(channel.id, stage.id)}
      onDoubleClick={() => setView({ renaming: stage.id })}
      onDragStart={(e) => carryStage(e, stage.id)}
      {...besides(owner, index)}
    >
      {renaming ? (
        <NameField stage={stage} name={name} />
      ) : (
        <span className={`truncate text-[13px] font-semibold ${hollow ? 'struck soft' : ''}`} title={name}>
          {name}
        </span>
      )}
      <span className="flex items-end justify-between">
        <MiniPicture stage={stage} width={width > 100 ? 52 : 40} height={20} />
        <span className="figure soft text-[11px]" title={stage.mixLock ? 'The mix is locked' : undefined}>
          {stage.mix < 100 || stage.mixLaw === 'add'
            ? `${stage.mixLaw === 'add' ? '+' : ''}${Math.round(stage.mix)} %${stage.mixLock ? '·' : ''}`
            : ''}
        </span>
      </span>
      <span className="figure soft flex justify-between text-[10px]">
        <span>
          {stage.actsOn === 'both' ? '' : stage.actsOn}
          {listened ? ' heard' : ''}
        </span>
        <span title="What it costs of the engine's time">
          {cost === undefined ? '' : percent(share(cost, rate))}
        </span>
      </span>
    </div>
  )
}

function NameField({ stage, name }: { stage: Stage; name: string }) {
  return (
    <input
      autoFocus
      className="input input-xs w-full"
      aria-label="Name of the stage"
      defaultValue={name}
      onFocus={(e) => e.target.select()}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Escape') setView({ renaming: '' })
        if (e.key === 'Enter') e.currentTarget.blur()
      }}
      onBlur={(e) => {
        if (!useView.getState().renaming) return
        setView({ renaming: '' })
        const next = e.target.value.trim()
        if (next !== name) void act.setStage(stage.id, { name: next }, 'Rename')
      }}
    />
  )
}
