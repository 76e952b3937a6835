import type { Presence } from '../api/types'
import { hearAlong, leaveAlong } from '../session/along'
import { useSession } from '../session/store'
import { isAnother } from '../session/whereabouts'
import { Mark } from './Mark'

/** Who else has the project open just now, where they are, and a way to hear what they hear. */
export function HereNow() {
  const people = useSession((s) => s.people)
  const me = useSession((s) => s.me)
  const others = people.filter((p) => isAnother(p, me))
  return (
    <section className="mb-3">
      <h3 className="font-semibold">Here now</h3>
      {others.length === 0 && <p className="soft">Nobody else has this project open.</p>}
      <ul>
        {others.map((p) => (
          <Other key={p.window} of={p} />
        ))}
      </ul>
    </section>
  )
}

function Other({ of: p }: { of: Presence }) {
  const row = useSession((s) => s.project?.channels.find((c) => c.id === p.at)?.name)
  const along = useSession((s) => s.along?.window === p.window)
  const name = p.person.name || 'Somebody without a name'
  const says = [row && `at ${row}`, p.heard?.playing && 'playing'].filter(Boolean).join(', ')
  return (
    <li className="flex min-h-9 items-center gap-2">
      <Mark id={p.person.id} name={p.person.name} says={name} />
      <span className="min-w-0 grow truncate">
        {name} <span className="soft">{says}</span>
      </span>
      <button
        className={`btn btn-sm font-normal ${along ? 'btn-secondary' : 'btn-outline'}`}
        aria-pressed={along}
        disabled={!p.heard && !along}
        title={
          p.heard
            ? 'Playhead, loop, solo and listening point are theirs, until a gesture of your own'
            : 'Nothing has been heard there yet'
        }
        onClick={() => (along ? leaveAlong() : hearAlong(p))}
      >
        {along ? 'Hear on my own' : 'Hear along'}
      </button>
    </li>
  )
}
