import { useSession } from '../session/store'

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

/** Who is here; the last change and its maker on hover. */
export function Crew() {
  const people = useSession((s) => s.people)
  const me = useSession((s) => s.me)
  const last = useSession((s) => s.lastChange)
  const names = new Map<string, string>()
  for (const p of people) if (p.person.id) names.set(p.person.id, p.person.name)
  const others = [...names].filter(([id]) => id !== me?.id)
  return (
    <div
      className="flex items-center gap-1.5"
      title={last ? `${last.author.name}: ${last.label}` : 'Who is here'}
    >
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
      {me && <Badge name="Me" full={`${me.name} (you)`} colour="var(--deep)" />}
      {others.map(([id, name]) => (
        <Badge key={id} name={name.slice(0, 2)} full={name} colour="var(--live)" />
      ))}
    </div>
  )
}

function Badge({ name, full, colour }: { name: string; full: string; colour: string }) {
  return (
    <span
      className="grid h-6 w-6 place-items-center rounded-full border-2 text-small font-bold"
      style={{ borderColor: colour, background: 'var(--card)' }}
      title={full}
      aria-label={`${full} is here`}
    >
      {name}
    </span>
  )
}
