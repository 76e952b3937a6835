import { useShallow } from 'zustand/react/shallow'
import { useSession } from '../session/store'

/** Who else has a row selected, each once. */
export function Others({ row }: { row: string }) {
  const names = useSession(
    useShallow((s) => [
      ...new Set(s.people.filter((p) => p.at === row && p.person.id !== s.me?.id).map((p) => p.person.name)),
    ]),
  )
  if (names.length === 0) return null
  const says = names.map((n) => n || 'Somebody without a name').join(', ')
  return (
    <span
      className="mt-0.5 grid h-[18px] min-w-[18px] place-items-center rounded-full border-2 px-0.5 text-small leading-none font-bold"
      style={{ borderColor: 'var(--live)', background: 'var(--card)' }}
      role="img"
      title={`${says}: here`}
      aria-label={`${says}: at this row`}
    >
      {names.length > 1 ? names.length : names[0]!.slice(0, 2) || '?'}
    </span>
  )
}
