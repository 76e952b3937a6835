import type { PlaceSpec } from '../api/types'
import { Toggle } from './picks'

export type How = Pick<PlaceSpec, 'empty' | 'level' | 'slice'>

const levels = {
  '': 'As it comes',
  same: 'As loud as it was',
  peak: 'Peak at −1 dBFS',
}

/** How clips are printed where they stand. */
export const InPlace = ({ how, onSet }: { how: How; onSet: (how: How) => void }) => (
  <>
    <label className="flex min-h-6 items-center justify-between gap-3">
      Level
      <select
        className="select select-sm w-[220px]"
        value={how.level?.to ?? ''}
        onChange={(e) => onSet({ level: levelOf(e.target.value) })}
      >
        {Object.entries(levels).map(([to, text]) => (
          <option key={to} value={to}>
            {text}
          </option>
        ))}
      </select>
    </label>
    <Toggle
      text="Take the stages away: the print holds what they do"
      on={how.empty ?? false}
      onTurn={(empty) => onSet({ empty })}
    />
    <Toggle text="Slice it where sounds begin" on={how.slice ?? false} onTurn={(slice) => onSet({ slice })} />
    <p className="soft text-small">
      What comes out of the chain takes the place of the clips, with its tail;{' '}
      {how.empty ? 'the chain is empty then, for what comes next.' : 'it enters behind the chain.'} What it
      was made from is kept: one round back brings it again.
    </p>
  </>
)

const levelOf = (to: string): How['level'] =>
  to === 'same' ? { to } : to === 'peak' ? { to, peak: -1 } : undefined
