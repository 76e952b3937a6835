import type { ReactNode } from 'react'
import type { Channel, EffectInfo, Stage } from '../api/types'
import { Menu } from '../controls/Menu'
import { stageName } from '../document/chain'
import { remarkOn } from '../remarks/about'
import { stageToSend } from '../routing/gestures'
import { listenTo, listenToAll } from '../session/listening'
import { endOf, placeOf, rowOf } from '../session/selected'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { otherEndBlind } from '../trials/actions'
import { forkSelection } from './forks'
import { paste } from './paste'
import { copy } from './several'
import { duplicateStage, removeStage, shiftStage, toggleBypass } from './stages'

type Props = {
  stage: Stage
  channel: Channel
  effect: EffectInfo
  pinned?: boolean
  /** The sheets of its scales, where there are several. */
  children?: ReactNode
}

/** The head of a stage on the bench: its name, listening, in and out, presets and the rest. */
export function StageHead({ stage, channel, effect, pinned, children }: Props) {
  const effects = useSession((s) => s.effects)
  const name = stageName(stage, effects)
  const treats = useSession((s) => s.project?.treatments?.some((t) => t.id === channel.id)) // heard with its piece
  return (
    <div className="mb-0.5 flex h-7 shrink-0 items-center gap-2">
      <h2 className="shrink-0 text-head font-bold whitespace-nowrap" title={effect.says}>
        {name}
      </h2>
      <span className="soft line-clamp-2 min-w-0 text-small leading-[14px]">
        on {channel.name}
        {stage.name && stage.name !== effect.name ? ` · ${effect.name}` : ''}
      </span>
      <span className="ml-auto shrink-0">{children}</span>
      <span className="flex shrink-0 items-center gap-1">
        {!treats && <Listen stage={stage} />}
        <button
          className="btn btn-xs btn-outline font-normal"
          onClick={() => setView({ dialog: { kind: 'presets', of: 'stage', target: stage.id } })}
          title="Presets of this effect ( W )"
        >
          Presets
        </button>
        <span className="flex gap-0.5">
          <button
            className={`btn btn-xs px-2 ${stage.bypass ? 'btn-outline font-normal' : 'btn-primary'}`}
            aria-pressed={!stage.bypass}
            onClick={() => stage.bypass && toggleBypass(stage.id)}
          >
            In
          </button>
          <button
            className={`btn btn-xs px-2 ${stage.bypass ? 'btn-primary' : 'btn-outline font-normal'}`}
            aria-pressed={stage.bypass}
            onClick={() => !stage.bypass && toggleBypass(stage.id)}
            title="Bypass ( B )"
          >
            Out
          </button>
        </span>
        <StageMenu stage={stage} pinned={pinned} />
      </span>
    </div>
  )
}

/** The chain up to here, or only what the stage changes: for this window alone. */
function Listen({ stage }: { stage: Stage }) {
  const now = useView((v) => (v.listening?.node === stage.id ? v.listening : null))
  const lit = now !== null
  return (
    <Menu
      label="Listen"
      className={`btn btn-xs font-normal ${lit ? 'btn-secondary' : 'btn-outline'}`}
      items={[
        { text: 'The chain up to here', key: 'J', run: () => listenTo(stage.id, false) },
        { text: 'Only what it changes', key: '⇧J', run: () => listenTo(stage.id, true) },
        ...(stage.key ? [{ text: 'What drives it', run: () => listenTo(stage.id, false, true) }] : []),
        { text: 'Everything again', key: 'Esc', run: listenToAll, off: !lit },
      ]}
    >
      {now ? (now.key ? 'Its key' : now.change ? 'Its change' : 'Up to here') : 'Listen'}
    </Menu>
  )
}

function StageMenu({ stage, pinned }: { stage: Stage; pinned?: boolean }) {
  const at = placeOf(stage.id)
  const row = useSession((s) => s.project!.channels.find((c) => c.id === (at && rowOf(at.owner)?.id)))
  const ends = at && row && at.nodes.length > 1 && at.owner === endOf(row)
  return (
    <Menu
      label="Menu of the stage"
      named={pinned ? undefined : `stage ${stage.id}`}
      className="btn btn-xs btn-ghost px-1"
      items={[
        { text: 'Name it', key: 'N', run: () => setView({ renaming: stage.id }) },
        {
          text: 'Replace it',
          key: 'R',
          run: () =>
            at &&
            setView({ dialog: { kind: 'effects', owner: at.owner, index: at.index, replace: stage.id } }),
        },
        pinned
          ? { text: 'Take it off the bench', key: 'I', run: () => setView({ pinned: '' }) }
          : { text: 'Keep it on the bench', key: 'I', run: () => setView({ pinned: stage.id }) },
        { text: 'Duplicate', key: 'U', run: () => void duplicateStage(stage.id) },
        { text: 'Copy', key: 'Ctrl C', run: () => void copy([stage.id]) },
        { text: 'Paste behind it', key: 'Ctrl V', run: () => void paste() },
        { text: 'Fork here: it beside a dry path', key: 'F', run: () => void forkSelection() },
        { text: 'Make it a send and a return', run: () => void stageToSend(stage.id) },
        {
          text: 'Here or at the other end: blind',
          says:
            'Compares the chain, at matched loudness and without saying which is which, ' +
            'with one in which this stage stands first, or last where it is the first.',
          off: !ends,
          run: () => void otherEndBlind(stage.id),
        },
        { text: 'Say something about it', key: '⇧Z', run: () => remarkOn({ at: stage.id, from: 0, to: 0 }) },
        { text: 'Earlier', key: 'Alt ←', run: () => shiftStage(stage.id, -1) },
        { text: 'Later', key: 'Alt →', run: () => shiftStage(stage.id, 1) },
        { text: 'Remove', key: 'Del', run: () => void removeStage(stage.id) },
      ]}
    >
      ⋯
    </Menu>
  )
}
