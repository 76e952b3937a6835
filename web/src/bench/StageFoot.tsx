import type { EffectInfo, Stage } from '../api/types'
import { useSession } from '../session/store'
import { renewStage, setStage } from './stages'

const laws = ['blend', 'add']
const parts = ['both', 'left', 'right', 'mid', 'side']

/** What every stage has besides its scales, in a line: the law of its mix, what it acts on, its lock, how it ends. */
export function StageFoot({ stage, effect }: { stage: Stage; effect: EffectInfo }) {
  const strip = useSession((s) => s.strip)
  if (!strip) return null
  return (
    <>
      {effect.version < effect.newest && <OlderSound stage={stage} effect={effect} />}
      <div className="flex min-h-[25px] shrink-0 flex-wrap items-end gap-1">
        <Small
          label="Mix law"
          says="Blend fades from dry to wet; add leaves the dry signal as it is and adds the wet."
          value={stage.mixLaw}
          choices={laws}
          onPick={(mixLaw) => void setStage(stage.id, { mixLaw }, 'Change the mix law of')}
        />
        <Small
          label="Acts on"
          says="Which part of the stereo signal the stage treats; the rest passes untouched."
          value={stage.actsOn}
          choices={parts}
          before="on "
          onPick={(actsOn) => void setStage(stage.id, { actsOn }, 'Change what it acts on:')}
        />
        <Switch
          label="Lock the mix"
          text="lock mix"
          says="Presets and replacements leave mix and law alone."
          on={stage.mixLock}
          onSet={(mixLock) =>
            void setStage(stage.id, { mixLock }, mixLock ? 'Lock the mix of' : 'Unlock the mix of')
          }
        />
        <Switch
          label="Ring out"
          text="ring out"
          says="Bypassed, it lets what is in it die away instead of stopping."
          on={stage.ringOut}
          onSet={(ringOut) => void setStage(stage.id, { ringOut }, 'Change how it ends:')}
        />
      </div>
    </>
  )
}

function Small<T extends string>(p: {
  label: string
  says: string
  value: T
  choices: string[]
  before?: string
  onPick: (v: T) => void
}) {
  return (
    <select
      className="select select-xs min-w-[68px] w-auto flex-1 pr-5"
      aria-label={p.label}
      title={`${p.label}. ${p.says}`}
      data-says={p.says}
      value={p.value}
      onChange={(e) => p.onPick(e.target.value as T)}
    >
      {p.choices.map((c) => (
        <option key={c} value={c}>
          {p.before}
          {c}
        </option>
      ))}
    </select>
  )
}

/** Something that is on or off, as a word that is lit. */
function Switch(p: { label: string; text: string; says: string; on: boolean; onSet: (on: boolean) => void }) {
  return (
    <button
      role="switch"
      aria-checked={p.on}
      aria-label={p.label}
      className={`btn btn-xs px-1.5 font-normal ${p.on ? 'btn-secondary' : 'btn-ghost'}`}
      title={`${p.label}. ${p.says}`}
      data-says={p.says}
      onClick={() => p.onSet(!p.on)}
    >
      {p.text}
    </button>
  )
}

/** A stage whose effect has been mended since: it sounds as it did, until somebody wants the new one. */
function OlderSound({ stage, effect }: { stage: Stage; effect: EffectInfo }) {
  return (
    <div className="flex shrink-0 items-center justify-between gap-2 text-label">
      <span className="soft">
        An older sound: {effect.version} of {effect.newest}
      </span>
      <button
        className="btn btn-xs btn-outline shrink-0 font-normal"
        onClick={() => void renewStage(stage.id)}
      >
        Use the new one
      </button>
    </div>
  )
}
