import { useSession } from '../session/store'
import type { Wanted } from './find'

const kinds = { sound: 'Sounds', print: 'Prints', slices: 'Slices' }
const lengths = { short: 'Up to 1 s', middle: 'Up to 4 s', long: 'Longer' } as const

type Props = { wanted: Wanted; onWant: (w: Partial<Wanted>) => void; quiet: boolean }

/** What is looked for on the shelf. */
export function ShelfSearch({ wanted: w, onWant, quiet }: Props) {
  const tempo = useSession((s) => s.project?.tempo[0]?.bpm ?? 0)
  return (
    <>
      <input
        autoFocus={!quiet}
        className="input input-sm mt-1 w-full shrink-0"
        placeholder="Search: bell, rise, D5, a row, a project…"
        aria-label="Search the shelf"
        value={w.text}
        onChange={(e) => onWant({ text: e.target.value })}
      />
      <div className="mt-1.5 flex shrink-0 flex-wrap gap-1" role="group" aria-label="What is shown">
        {Object.entries(kinds).map(([k, text]) => (
          <Badge key={k} text={text} on={w.kind === k} onTurn={(on) => onWant({ kind: on ? k : '' })} />
        ))}
        <span className="w-2" />
        {(Object.keys(lengths) as (keyof typeof lengths)[]).map((l) => (
          <Badge
            key={l}
            text={lengths[l]}
            on={w.length === l}
            onTurn={(on) => onWant({ length: on ? l : '' })}
          />
        ))}
        <span className="w-2" />
        <Badge
          text={`At ${tempo.toFixed(0)} bpm`}
          on={w.tempo > 0}
          onTurn={(on) => onWant({ tempo: on ? tempo : 0 })}
        />
      </div>
    </>
  )
}

const Badge = (p: { text: string; on: boolean; onTurn: (on: boolean) => void }) => (
  <button
    className={`badge badge-sm h-6 cursor-pointer ${p.on ? 'badge-primary' : 'badge-outline'}`}
    aria-pressed={p.on}
    onClick={() => p.onTurn(!p.on)}
  >
    {p.text}
  </button>
)
