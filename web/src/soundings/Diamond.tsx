import type { Sounding } from '../api/types'
import { useSession } from '../session/store'
import { setView } from '../session/view'

/** A mark that something was noticed: hollow for a note, filled for a caution, with a bar where a signal is lost. */
export function Shape({ weight, size = 10 }: { weight: Sounding['weight']; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 10 10" aria-hidden className="shrink-0">
      <path
        d="M5 0.6 9.4 5 5 9.4 0.6 5Z"
        fill={weight === 'note' ? 'none' : 'var(--caution)'}
        stroke="var(--caution)"
        strokeWidth={1.1}
      />
      {weight === 'broken' && <path d="M2.8 5H7.2" stroke="var(--card)" strokeWidth={1.4} />}
    </svg>
  )
}

/** The weightiest sounding about one of these places, as a mark that opens the list. */
export function Diamond({ at }: { at: string[] }) {
  const soundings = useSession((s) => s.soundings)
  const found = soundings.filter((x) => !x.meant && at.includes(x.at))
  if (!found.length) return null
  return (
    <button
      type="button"
      className="grid h-[24px] w-[24px] shrink-0 place-items-center"
      aria-label={`Sounding: ${found[0]!.title}`}
      title={found.map((x) => x.says).join('\n')}
      onClick={(e) => {
        e.stopPropagation()
        setView({ dialog: { kind: 'soundings', row: found[0]!.channel } })
      }}
    >
      <Shape weight={found[0]!.weight} />
    </button>
  )
}
