import type { EffectInfo, Stage } from '../api/types'
import { Toggle } from '../controls/Pick'
import { TapPick } from '../routing/TapPick'
import { change } from '../session/changes'
import { setView, useViewOf } from '../session/view'
import { Learn, SoundLoader } from './StageSound'

/** What only some stages have: a sound of their own, something to learn, a key; and how several are set together. */
export function StageMore({ stage, effect, name }: { stage: Stage; effect: EffectInfo; name: string }) {
  const { together, keepDifferences } = useViewOf('together', 'keepDifferences')
  return (
    <>
      {effect.sound && <SoundLoader stage={stage} what={effect.sound} />}
      {effect.learns && <Learn stage={stage} text={effect.learns} />}
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
