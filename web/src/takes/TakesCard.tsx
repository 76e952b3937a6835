import { useState } from 'react'
import { Card } from '../controls/Card'
import { barAt } from '../document/time'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { TakeRow } from './TakeRow'
import { loopTakes, step, takesAt } from './takes'

type Props = { row: string; from: number; to: number }

/** The takes of a place: heard one after the other in the loop, and chosen for all of it or for the range that is drawn. */
export function TakesCard({ row, from, to }: Props) {
  const project = useSession((s) => s.project!)
  const timeline = useSession((s) => s.timeline)
  const piece = useView((v) => (v.piece?.rows.includes(row) ? v.piece : null))
  const [dropped, setDropped] = useState(false)
  const channel = project.channels.find((c) => c.id === row)
  if (!channel) return null
  const all = takesAt(project, row, from, to)
  const list = all.filter((t) => dropped || !t.dropped)
  const away = all.filter((t) => t.dropped).length
  const bar = timeline ? barAt(timeline, from) + 1 : 1
  return (
    <Card
      title={`Takes at bar ${bar} of ${channel.name}`}
      width={520}
      onKey={(e) => {
        const by = { ArrowUp: -1, ArrowDown: 1 }[e.key]
        if (!by) return
        e.preventDefault()
        e.stopPropagation()
        void step(channel, list, by, piece)
      }}
      foot={
        piece
          ? '↑ ↓ step through them. A take is chosen for the range that is drawn, with cross-fades at its edges.'
          : '↑ ↓ step through them. With a range on the row, a take is chosen for that part only.'
      }
    >
      <div className="flex flex-col gap-1.5" role="list">
        {list.map((t) => (
          <TakeRow key={t.id} take={t} channel={channel} range={piece} />
        ))}
        {list.length === 0 && <p className="soft text-label">All takes of this place have been put away.</p>}
      </div>
      <div className="mt-2 flex gap-2">
        <button className="btn btn-xs btn-outline font-normal" onClick={() => loopTakes(channel, from, to)}>
          Loop over it
        </button>
        {away > 0 && (
          <button className="btn btn-xs btn-ghost font-normal" onClick={() => setDropped(!dropped)}>
            {dropped ? 'Hide what was put away' : `${away} put away: show`}
          </button>
        )}
      </div>
    </Card>
  )
}
