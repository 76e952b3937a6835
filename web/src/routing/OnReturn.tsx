import type { EffectInfo, Preset } from '../api/types'

type Props = {
  effects: EffectInfo[]
  /** Presets that can stand there, by what they are of. */
  kinds: [string, Preset[]][]
  /** An effect, `preset ` and its id, or nothing yet. */
  value: string
  onPick: (value: string) => void
}

/** What stands on a new return: a preset, an effect, or nothing yet. */
export function OnReturn({ effects, kinds, value, onPick }: Props) {
  return (
    <select
      className="select select-sm mt-1 w-full"
      aria-label="Effect on the return"
      value={value}
      onChange={(e) => onPick(e.target.value)}
    >
      <option value="">nothing yet</option>
      {kinds.map(
        ([title, list]) =>
          list.length > 0 && (
            <optgroup key={title} label={title}>
              {list.map((p) => (
                <option key={p.id} value={`preset ${p.id}`}>
                  {p.name}
                </option>
              ))}
            </optgroup>
          ),
      )}
      {[...new Set(effects.map((x) => x.family))].map((f) => (
        <optgroup key={f} label={f}>
          {effects
            .filter((x) => x.family === f)
            .map((x) => (
              <option key={x.id} value={x.id}>
                {x.name}
              </option>
            ))}
        </optgroup>
      ))}
    </select>
  )
}
