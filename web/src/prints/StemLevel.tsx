import { Toggle } from './picks'
import type { MixLevel } from './StemsDialog'

/** The loudness that main, as heard, is brought to by one gain, and the ceiling of its true peak. */
export function StemLevel(p: { level: MixLevel | null; onLevel: (l: MixLevel | null) => void }) {
  const { level } = p
  const field = (name: keyof MixLevel, label: string, unit: string) => (
    <label className="flex items-center gap-1.5">
      <input
        className="input input-sm figure w-16"
        type="number"
        step="0.5"
        aria-label={label}
        value={level![name]}
        onChange={(e) => p.onLevel({ ...level!, [name]: Number(e.target.value) })}
      />
      {unit}
    </label>
  )
  return (
    <>
      <Toggle
        text="Bring the main output to a loudness"
        on={!!level}
        onTurn={(on) => p.onLevel(on ? { lufs: -16, ceiling: -1 } : null)}
      />
      {level && (
        <div className="flex min-h-6 items-center justify-end gap-3">
          {field('lufs', 'Loudness', 'LUFS')}
          {field('ceiling', 'Ceiling of its true peak', 'dBTP')}
        </div>
      )}
    </>
  )
}
