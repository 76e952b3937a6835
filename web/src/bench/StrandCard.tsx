import type { Channel, Stage } from '../api/types'
import { MiniPicture } from '../board/MiniPicture'
import { NameField } from '../controls/NameField'
import { stageName } from '../document/chain'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { cardProps, useCard } from './card'
import { setStage } from './stages'

type Props = { stage: Stage; channel: Channel; owner: string; index: number; off: boolean }

/** A stage on a strand of the bench: as a card, but low. */
export function StrandCard({ stage, channel, owner, index, off }: Props) {
  const effects = useSession((s) => s.effects)
  const renaming = useView((v) => v.renaming === stage.id)
  const hollow = stage.bypass || off
  const look = useCard(stage.id, hollow)
  const name = stageName(stage, effects)
  return (
    <div
      {...cardProps(stage.id, channel.id, owner, index, !renaming)}
      aria-pressed={look.pressed}
      aria-label={`${name}${hollow ? ', bypassed' : ''}${look.listened ? ', listened to' : ''}, place ${index + 1}`}
      className="flex h-[36px] w-[84px] shrink-0 flex-col justify-between rounded-[3px] border px-1.5 py-0.5"
      style={look.style}
    >
      {renaming ? (
        <NameField
          name={name}
          label="Name of the stage"
          onName={(next) => void setStage(stage.id, { name: next }, 'Rename')}
        />
      ) : (
        <span className={`truncate text-small font-semibold ${hollow ? 'struck soft' : ''}`} title={name}>
          {name}
        </span>
      )}
      <span className="flex items-end justify-between">
        <MiniPicture stage={stage} width={40} height={13} />
        <span className="figure soft text-small leading-[11px]">
          {stage.actsOn === 'both' ? '' : `${stage.actsOn} `}
          {stage.mix < 100 || stage.mixLaw === 'add'
            ? `${stage.mixLaw === 'add' ? '+' : ''}${Math.round(stage.mix)}`
            : ''}
        </span>
      </span>
    </div>
  )
}
