import type { EffectInfo, Stage } from '../api/types'
import { ParamControl } from '../controls/ParamControl'
import { Pick, Toggle } from '../controls/Pick'
import { TapPick } from '../routing/TapPick'
import { change } from '../session/changes'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { Learn, SoundLoader } from './StageSound'
import { renewStage, setStage } from './stages'

/** What every stage has: mix with its law and lock, what it acts on, how it ends; and what only some use. */
export function StageFoot({ stage, effect, name }: { stage: Stage; effect: EffectInfo; name: string }) {
  const strip = useSession((s) => s.strip)
  const { together, keepDifferences } = useView()
  if (!strip) return null
  return (
    <>
      {effect.version < effect.newest && <OlderSound stage={stage} effect={effect} />}
      {effect.sound && <SoundLoader stage={stage} what={effect.sound} />}
      {effect.learns && <Learn stage={stage} text={effect.learns} />}
      <ParamControl
        owner={stage.id}
        param={{ ...strip.mix, default: effect.mix }}
        value={stage.mix}
        of={name}
      />
      <Pick
        label="Mix law"
        says="Blend fades from dry to wet; add leaves the dry signal as it is and adds the wet."
        value={stage.mixLaw}
        choices={named('blend', 'add')}
        onPick={(mixLaw) => setStage(stage.id, { mixLaw }, 'Change the mix law of')}
      />
      <Pick
        label="Acts on"
        says="Which part of the stereo signal the stage treats; the rest passes untouched."
        value={stage.actsOn}
        choices={named('both', 'left', 'right', 'mid', 'side')}
        onPick={(actsOn) => setStage(stage.id, { actsOn }, 'Change what it acts on:')}
      />
      {effect.keyed && (
        <TapPick
          label="Driven by"
          says="Another signal that makes it react, in place of its own: its key."
          tap={stage.key}
          none="its own signal"
          without=""
          onPick={(key) =>
            change(`Change what drives ${name}`, {
              type: 'stage.key',
              do: { id: stage.id, key: key ?? undefined },
            })
          }
        />
      )}
      <Toggle
        label="Lock the mix"
        says="Presets and replacements leave mix and law alone."
        on={stage.mixLock}
        onSet={(mixLock) =>
          setStage(stage.id, { mixLock }, mixLock ? 'Lock the mix of' : 'Unlock the mix of')
        }
      />
      <Toggle
        label="Ring out"
        says="Bypassed, it lets what is in it die away instead of stopping."
        on={stage.ringOut}
        onSet={(ringOut) => setStage(stage.id, { ringOut }, 'Change how it ends:')}
      />
      {together.length > 1 && (
        <Toggle
          label={`Set ${together.length} together, keep differences`}
          says="Moving a scale moves it in every selected stage of this effect; off, all take the same value."
          on={keepDifferences}
          onSet={(keepDifferences) => setView({ keepDifferences })}
        />
      )}
    </>
  )
}

/** A stage keeps the sound that it was made with; here it gets the one that its effect has now. */
function OlderSound({ stage, effect }: { stage: Stage; effect: EffectInfo }) {
  return (
    <div className="flex items-center justify-between gap-2 text-small">
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

const named = (...names: string[]) => names.map((n) => ({ value: n, text: n }))
