import { useNavigate } from 'react-router'
import { answer, api } from '../api/client'
import type { Crew, Member, Role } from '../api/types'
import { useSession } from '../session/store'
import type { Run } from './CrewCard'
import { when } from './HandedOver'
import { Mark } from './Mark'

const roles: Record<Role, string> = { owner: 'Owner', engineer: 'Engineer', listener: 'Listener' }

/** Who is in the project, each with their role; owners change it. */
export function People({ id, of: c, run }: { id: string; of: Crew; run: Run }) {
  return (
    <>
      <h3 className="font-semibold">In this project</h3>
      <p className="soft text-small">
        Listeners hear, look and remark. Engineers change the project as well. Owners also say who is in it.
      </p>
      <ul className="flex flex-col">
        {c.people.map((m) => (
          <Person key={m.person.id} id={id} of={m} owns={c.role === 'owner'} run={run} />
        ))}
      </ul>
    </>
  )
}

function Person({ id, of: m, owns, run }: { id: string; of: Member; owns: boolean; run: Run }) {
  const me = useSession((s) => s.me?.id === m.person.id)
  const at = { params: { path: { id, person: m.person.id } } }
  const leave = useLeave()
  return (
    <li className="flex min-h-9 items-center gap-2 border-b py-1" style={{ borderColor: 'var(--hair)' }}>
      <Mark id={m.person.id} name={m.person.name} says={m.person.name} />
      <span className="min-w-0 grow leading-tight">
        <span className="block truncate font-semibold">
          {m.person.name} {me && <span className="soft font-normal">(you)</span>}
        </span>
        <span className="soft block truncate text-small">
          {m.by ? `Brought in by ${m.by}, ${when(m.since)}` : `Since ${when(m.since)}`}
        </span>
      </span>
      {owns ? (
        <select
          className="select select-sm w-[120px]"
          aria-label={`Role of ${m.person.name}`}
          value={m.role}
          onChange={(e) =>
            void run(
              answer(
                api.PUT('/api/projects/{id}/crew/{person}', {
                  ...at,
                  body: { role: e.target.value as Role },
                }),
              ),
            )
          }
        >
          {Object.entries(roles).map(([role, text]) => (
            <option key={role} value={role}>
              {text}
            </option>
          ))}
        </select>
      ) : (
        <span className="soft">{roles[m.role]}</span>
      )}
      {(owns || me) && (
        <button
          className="btn btn-sm btn-ghost font-normal"
          onClick={() => {
            const out = answer(api.DELETE('/api/projects/{id}/crew/{person}', at))
            void run(me ? out.then(leave) : out)
          }}
        >
          {me ? 'Leave' : 'Take out'}
        </button>
      )}
    </li>
  )
}

/** Leads back to one's projects, once one has left. */
function useLeave() {
  const go = useNavigate()
  return () => void go('/')
}
