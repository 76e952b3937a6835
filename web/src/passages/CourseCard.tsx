import { ParameterList } from '../lines/ParameterList'
import { useSession } from '../session/store'
import * as passages from './actions'

/** Everything of a passage's rows that it can move; what it moves already stands last. */
export function CourseCard({ id }: { id: string }) {
  const passage = useSession((s) => s.project?.passages?.find((p) => p.id === id))
  if (!passage) return null
  const moves = (owner: string, name: string) =>
    passage.courses.some((c) => c.targets.some((m) => m.owner === owner && m.name === name))
  return (
    <ParameterList
      label="Move something more"
      head={<span>What else {passage.name} moves</span>}
      foot="Arrows choose, Enter lets the passage move it too."
      of={passage.rows}
      inUse={(m) => (moves(m.owner, m.name) ? 'moves already' : '')}
      newFirst
      onTake={(m) => {
        if (!moves(m.owner, m.name)) void passages.moveAlso(passage, m.owner, m.name, `${m.label} of ${m.of}`)
      }}
    />
  )
}
