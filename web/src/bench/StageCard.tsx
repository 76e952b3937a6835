import type { Channel, Stage } from '../api/types'
import { SmallPicture } from '../board/MiniPicture'
import { NameField } from '../controls/NameField'
import { percent, share } from '../controls/cost'
import { effectOf, stageName } from '../document/chain'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { Plumb, plumbsOf } from './Plumb'
import { cardProps, useCard } from './card'
import { useHanging, useStagePicture } from './picture'
import { setStage } from './stages'

type Props = {
  stage: Stage
  channel: Channel
  owner: string
  index: number
  off: boolean
  /** On a strand: the plumbs' figures stand beside them. */
  beside?: boolean
}

/** A stage on the surface, with its plumbs hanging under it. */
export function StageCard({ stage, channel, owner, index, off, beside }: Props) {
  const effects = useSession((s) => s.effects)
  const rate = useSession((s) => s.project!.sampleRate)
  const mix = useSession((s) => s.strip?.mix)
  const cost = useSession((s) => s.costs[stage.id])
  const renaming = useView((v) => v.renaming === stage.id)
  const name = stageName(stage, effects)
  const hollow = stage.bypass || off
  const look = useCard(stage.id, hollow)
  const effect = effectOf(stage, effects)
  const picture = useStagePicture(stage)
  const hung = plumbsOf(stage, effect, mix, useHanging(stage, picture))
  const says = [
    stage.actsOn === 'both' ? '' : stage.actsOn,
    stage.mixLaw === 'add' ? 'added' : '',
    stage.mixLock ? 'locked' : '',
    look.listened ? 'heard' : '',
  ].filter(Boolean)
  return (
    <span className="relative flex flex-col items-center gap-1">
      <span
        {...cardProps(stage.id, channel.id, owner, index, !renaming)}
        aria-pressed={look.pressed}
        aria-label={`${name}${hollow ? ', bypassed' : ''}${look.listened ? ', listened to' : ''}, place ${index + 1}`}
        title={cost === undefined ? name : `${name} costs ${percent(share(cost, rate))} of the engine's time`}
        className="relative flex h-9 shrink-0 scroll-mx-12 items-center gap-2 rounded-[4px] border px-2.5"
        style={look.style}
      >
        {renaming ? (
          <NameField
            name={name}
            label="Name of the stage"
            onName={(next) => void setStage(stage.id, { name: next }, 'Rename')}
          />
        ) : (
          <span className="flex flex-col leading-[14px] whitespace-nowrap">
            <span className={`text-label font-semibold ${hollow ? 'struck soft' : ''}`}>{name}</span>
            {says.length > 0 && <span className="water-label text-small leading-3">{says.join(' · ')}</span>}
          </span>
        )}
        <SmallPicture picture={picture} width={34} height={18} />
      </span>
      {!hollow && (
        <span className="flex gap-2.5">
          {hung.map((h) => (
            <Plumb key={h.param.name} owner={stage.id} of={name} beside={beside} {...h} />
          ))}
        </span>
      )}
    </span>
  )
}
