import { useSession } from '../session/store'
import { setView } from '../session/view'
import { Mark } from './Mark'

/** The last change of somebody else. */
export function LastChange() {
  const me = useSession((s) => s.me)
  const last = useSession((s) => s.lastChange)
  if (!last || last.author.id === me?.id) return null
  return (
    <span className="soft ml-auto truncate" data-testid="last-change">
      {last.author.name}: {last.label}
    </span>
  )
}

/** Who is here; a press shows who is in the project, and what they may. */
export function Here() {
  const people = useSession((s) => s.people)
  const me = useSession((s) => s.me)
  const names = new Map<string, string>()
  for (const p of people) if (p.person.id) names.set(p.person.id, p.person.name)
  const others = [...names].filter(([id]) => id !== me?.id)
  const shown = others.slice(0, MOST)
  return (
    <div className="flex items-center gap-1.5">
      {!me && (
        <button
          className="grid h-6 w-6 cursor-pointer place-items-center rounded-full border-2 border-dashed text-small font-bold"
          style={{ borderColor: 'var(--deep)', background: 'var(--card)' }}
          title="Say who you are: others see who is here, and who made a change"
          aria-label="Your name?"
          onClick={() => useSession.setState({ naming: () => undefined })}
        >
          ?
        </button>
      )}
      {(me || others.length > 0) && (
        <button
          className="flex min-h-6 cursor-pointer items-center -space-x-1"
          title="Crew: who is in the project"
          aria-label={`Crew: ${[me ? 'you' : '', ...others.map(([, name]) => name)].filter(Boolean).join(', ')}`}
          onClick={() => setView({ dialog: { kind: 'crew' } })}
        >
          {me && (
            <Mark id={me.id} name={me.name} says={`${me.name} (you) is here`}>
              Me
            </Mark>
          )}
          {shown.map(([id, name]) => (
            <Mark key={id} id={id} name={name} says={`${name} is here`} />
          ))}
          {others.length > MOST && (
            <span
              className="soft text-small"
              title={others
                .slice(MOST)
                .map(([, name]) => name)
                .join(', ')}
            >
              +{others.length - MOST}
            </span>
          )}
        </button>
      )}
    </div>
  )
}

/** How many others are shown by their marks. */
const MOST = 4
