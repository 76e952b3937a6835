import type { Channel } from '../api/types'
import { Handles } from '../moves/Handles'
import { useReach } from '../routing/LitPath'
import { tapText } from '../routing/taps'
import { useOutline } from '../session/outline'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { InputSays } from '../takes/InputSays'
import { LineSays } from '../waterline/LineSays'

/** Where the row comes from and goes to, as a sentence with links. */
export function RowSays({ channel }: { channel: Channel }) {
  const channels = useSession((s) => s.project!.channels)
  const taken = useOutline(() => (channel.input ? tapText(channel.input) : ''))
  const reach = useReach()
  const names = (ids: string[]) =>
    ids.map((id, i) => (
      <span key={id}>
        {i > 0 && ', '}
        <button className="water-label h-6 underline decoration-dotted" onClick={() => select(id)}>
          {channels.find((c) => c.id === id)?.name}
        </button>
      </span>
    ))
  const clips = channel.clips.length > 0
  const fed = reach.fed.length > 0
  return (
    <div className="flex h-6 shrink-0 items-center gap-4 px-3.5 text-small whitespace-nowrap">
      <InputSays channel={channel} />
      <LineSays channel={channel} />
      <span className="soft shrink-0">
        {clips || fed || taken
          ? 'Fed by '
          : channel.records
            ? 'Nothing is recorded yet'
            : 'Nothing comes in yet'}
        {clips && (fed ? 'its clips, ' : taken ? 'its clips and ' : 'its clips and nothing else')}
        {fed ? names(reach.fed) : taken}
        {reach.feeds.length > 0 && <> · heard in {names(reach.feeds)}</>}
        {channel.kind === 'main' && ' · goes out'}
      </span>
      <span className="ml-auto flex min-w-0 overflow-x-auto">
        <Handles row={channel.id} />
      </span>
    </div>
  )
}
