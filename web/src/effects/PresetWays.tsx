import { ofWholes } from './presets'

/** Where presets are that belong to no effect in the list, and the way back from those of one. */
export function PresetWays(p: { of: string; count: (of: string) => number; onOpen: (of: string) => void }) {
  const look = 'btn btn-xs btn-outline font-normal'
  if (p.of)
    return (
      <div className="mt-2">
        <button className={look} onClick={() => p.onOpen('')}>
          ← All effects
        </button>
      </div>
    )
  return (
    <div className="mt-2 flex gap-2">
      {ofWholes
        .filter(([kind]) => p.count(kind) > 0)
        .map(([kind, name]) => (
          <button key={kind} className={look} onClick={() => p.onOpen(kind)}>
            {name}: {p.count(kind)}
          </button>
        ))}
    </div>
  )
}
