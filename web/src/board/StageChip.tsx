import type { Stage } from '../api/types'
import { pick } from '../bench/pick'
import { stageName } from '../document/chain'
import { RemarkOn } from '../remarks/RemarkMark'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { MiniPicture } from './MiniPicture'
import { OthersOn } from './Others'
import { besides, carryStage } from './carry'
import { menuOnBench } from './menuOnBench'

type Props = {
  stage: Stage
  channel: string
  owner: string
  index: number
  chainOff: boolean
  size: 'full' | 'small'
}

/** A stage on a row. Drag it to another place; a bypassed one is hollow and struck through. */
export function StageChip({ stage, channel, owner, index, chainOff, size }: Props) {
  const effects = useSession((s) => s.effects)
  const broken = useSession((s) => s.broken.includes(stage.id))
  const selected = useView((v) => v.stage === stage.id)
  const together = useView((v) => v.together.includes(stage.id))
  const off = stage.bypass || chainOff
  const name = stageName(stage, effects)
  return (
    <button
      type="button"
      draggable
      data-stage={stage.id}
      aria-pressed={selected || together}
      aria-label={`${name}${off ? ', bypassed' : ''}${broken ? ', silenced: it made something that is no number' : ''}`}
      title={`${name}${off ? ' (bypassed)' : ''}`}
      className="flex h-6 min-w-0 shrink-0 items-center gap-2 rounded-[2px] border px-1.5 text-small whitespace-nowrap"
      style={{
        background: off ? 'transparent' : together ? 'var(--shoal-2)' : 'var(--card)',
        borderColor: broken ? 'var(--loss)' : selected ? 'var(--ink)' : 'var(--deep)',
        borderStyle: off ? 'dashed' : 'solid',
        borderWidth: selected ? 2 : 1,
      }}
      onClick={(e) => pick(e, channel, stage.id)}
      onContextMenu={menuOnBench(channel, stage.id)}
      onDoubleClick={() => setView({ renaming: stage.id, bench: true })}
      onDragStart={(e) => carryStage(e, stage.id)}
      {...besides(owner, index)}
    >
      {size === 'full' && <span className={off ? 'struck soft' : ''}>{name}</span>}
      <OthersOn node={stage.id} />
      <RemarkOn node={stage.id} />
      <MiniPicture stage={stage} width={size === 'full' ? 34 : 22} />
    </button>
  )
}
