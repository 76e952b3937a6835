import { useSession } from '../session/store'
import * as lines from './actions'
import { ParameterList } from './ParameterList'

/** Everything of a row that a line can move; those that have a line stand first. */
export function LinesCard({ row }: { row: string }) {
  const name = useSession(
    (s) =>
      s.project?.channels.flatMap((c) => (c.id === row ? [`on ${c.name}`] : []))[0] ??
      (s.project?.treatments?.some((t) => t.id === row) ? 'in the treatment' : ''),
  )
  return (
    <ParameterList
      label="Lines"
      head={<span>What moves {name}</span>}
      foot="Arrows choose, Enter opens the line under its row. Double click puts a point there."
      of={[row]}
      inUse={(m) => (m.line ? 'has a line' : '')}
      onTake={(m) => void lines.openLine(m.owner, m.name, `${m.label} of ${m.of}`)}
    />
  )
}
