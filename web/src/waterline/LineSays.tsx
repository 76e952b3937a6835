import type { Channel } from '../api/types'
import { percent, share, spentBefore } from '../controls/cost'
import { useSession } from '../session/store'
import { holds, lineIndex, lineWords, useLineWork } from './line'

/** What is printed of a row, whether that holds, and what it saves. */
export function LineSays({ channel }: { channel: Channel }) {
  const work = useLineWork(channel.id)
  const spent = useSession((s) => s.spent)
  const rate = useSession((s) => s.project!.sampleRate)
  const ready = useSession((s) => channel.id in s.ready)
  const at = lineIndex(channel)
  if (at < 0) return null
  const saved = spentBefore(channel, at, spent)
  return (
    <span className="shrink-0" data-testid="line-says">
      <i className="water-label">Before the line: </i>
      {ready ? 'runs while the row is ready' : holds(work) ? 'printed, holds' : lineWords(work)}
      {!ready && holds(work) && saved > 0 && `; saves ${percent(share(saved, rate))}`}
    </span>
  )
}
