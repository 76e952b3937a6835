import { Card } from '../controls/Card'
import { useSession } from '../session/store'
import { setView } from '../session/view'
import { takeAway } from './wayIn'

const ways = [
  {
    how: 'untouched',
    text: 'Play their untouched takes',
    says: 'They pass the whole chain, so it sounds as before and all of it can be changed.',
  },
  {
    how: 'behind',
    text: 'Stay as they were recorded, behind the chain',
    says: 'Nothing of the chain acts on them any more.',
  },
  {
    how: 'top',
    text: 'Stay as they were recorded, before the chain',
    says: 'They pass all of the chain, what they were recorded through once more.',
  },
] as const

/** What becomes of clips that came in behind a way in that is taken away. */
export function WayInCard({ row }: { row: string }) {
  const channel = useSession((s) => s.project!.channels.find((c) => c.id === row))
  if (!channel) return null
  const count = channel.clips.filter((x) => x.enters === 'wayIn').length
  return (
    <Card title={`The way in of ${channel.name}`} width={440}>
      <p className="mb-2 text-label">
        {count === 1 ? 'One clip was' : `${count} clips were`} recorded through it. Without it{' '}
        {count === 1 ? 'it shall' : 'they shall'}:
      </p>
      <div className="flex flex-col items-start gap-2">
        {ways.map((w) => (
          <span key={w.how} className="flex flex-col items-start">
            <button
              className="btn btn-sm btn-outline font-normal"
              onClick={() => {
                setView({ dialog: null })
                void takeAway(channel, w.how)
              }}
            >
              {w.text}
            </button>
            <span className="soft text-small">{w.says}</span>
          </span>
        ))}
      </div>
    </Card>
  )
}
