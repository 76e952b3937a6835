import type { Channel, Stage } from '../api/types'
import { MiniPicture } from '../board/MiniPicture'
import { NameField } from '../controls/NameField'
import { percent, share } from '../controls/cost'
import { stageName } from '../document/chain'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { cardProps, useCard } from './card'
import { setStage } from './stages'

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
  const renaming = useView((v) => v.renaming === stage.id)
  const name = stageName(stage, effects)
  const hollow = stage.bypass || off
  const look = useCard(stage.id, hollow)
  return (
    <div
      {...cardProps(stage.id, channel.id, owner, index, !renaming)}
      aria-pressed={look.pressed}
      aria-label={`${name}${hollow ? ', bypassed' : ''}${look.listened ? ', listened to' : ''}, place ${index + 1}`}
      className={`flex h-[70px] shrink-0 flex-col justify-between rounded-[3px] border py-1.5 ${width < 100 ? 'px-1.5' : 'px-2'}`}
      style={{ width, ...look.style }}
    >
      {renaming ? (
        <NameField
          name={name}
          label="Name of the stage"
          onName={(next) => void setStage(stage.id, { name: next }, 'Rename')}
        />
      ) : (
        <span
          className={`truncate font-semibold ${width < 100 ? 'text-small' : 'text-label'} ${hollow ? 'struck soft' : ''}`}
          title={name}
        >
          {name}
        </span>
      )}
      <span className="flex items-end justify-between gap-1 overflow-hidden">
        <MiniPicture stage={stage} width={width > 100 ? 52 : 32} height={20} />
        <span
          className="figure soft text-small whitespace-nowrap"
          title={stage.mixLock ? 'The mix is locked' : undefined}
        >
          {stage.mix < 100 || stage.mixLaw === 'add'
            ? `${stage.mixLaw === 'add' ? '+' : ''}${Math.round(stage.mix)} %${stage.mixLock ? '·' : ''}`
            : ''}
        </span>
      </span>
      <span className="figure soft flex justify-between text-small">
        <span>
          {stage.actsOn === 'both' ? '' : stage.actsOn}
          {look.listened ? ' heard' : ''}
        </span>
        <span title="What it costs of the engine's time">
          {cost === undefined ? '' : percent(share(cost, rate))}
        </span>
      </span>
    </div>
  )
}
