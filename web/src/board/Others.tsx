import { useShallow } from 'zustand/react/shallow'
import { Mark } from '../crew/Mark'
import { type Session, useSession } from '../session/store'
import { isAnother } from '../session/whereabouts'

/** Whoever else is somewhere, each once. */
const others = (s: Session, at: (p: Session['people'][number]) => boolean) => {
  const found = new Map<string, string>()
  for (const p of s.people) if (isAnother(p, s.me) && at(p)) found.set(p.person.id, p.person.name)
  return [...found].flat()
}

/** Who else has a row selected, each once. */
export function Others({ row }: { row: string }) {
  return <Those of={useSession(useShallow((s) => others(s, (p) => p.at === row)))} where="at this row" />
}

/** Who else has a stage, fork or send on their bench. */
export function OthersOn({ node }: { node: string }) {
  return <Those of={useSession(useShallow((s) => others(s, (p) => p.stage === node)))} where="here" />
}

/** People by id and name, one after the other: one mark, with their number where they are several. */
function Those({ of, where }: { of: string[]; where: string }) {
  if (of.length === 0) return null
  const names = of.filter((_, i) => i % 2).map((n) => n || 'Somebody without a name')
  return (
    <Mark id={of[0]!} name={of[1] || '?'} says={`${names.join(', ')}: ${where}`} small>
      {names.length > 1 ? String(names.length) : undefined}
    </Mark>
  )
}
