import type { Channel } from '../api/types'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { useReach } from './LitPath'

/** In words, what the row's signal meets. */
export function Meets({ channel }: { channel: Channel }) {
  const channels = useSession((s) => s.project!.channels)
  const reach = useReach()
  const line = (text: string, ids: string[]) =>
    ids.length > 0 && (
      <p className="soft text-small">
        {text}{' '}
        {ids.map((id, i) => (
          <span key={id}>
            {i > 0 && ', '}
            <button className="h-6 underline" onClick={() => select(id)}>
              {channels.find((c) => c.id === id)?.name}
            </button>
          </span>
        ))}
      </p>
    )
  if (channel.kind === 'main') return null
  return (
    <div className="mt-1 flex flex-col gap-1">
      {line('Fed by', reach.fed)}
      {line('Goes on to', reach.feeds)}
    </div>
  )
}
