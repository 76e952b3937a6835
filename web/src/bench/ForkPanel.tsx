import type { Channel, Fork, Path } from '../api/types'
import { useForkWords } from '../session/outline'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { ForkHead } from './ForkHead'
import { ForkPicture, useForkFigures } from './ForkPicture'
import { ForkSays } from './ForkSays'
import { ForkScales } from './ForkScales'
import { PathScales } from './PathScales'
import { useHint } from './useHint'

/** A fork on the bench: what it does as a whole, and how it divides and joins; with a path selected, what that has. */
export function ForkPanel({ fork, path, channel }: { fork: Fork; path: Path | null; channel: Channel }) {
  const strip = useSession((s) => s.strip)
  const height = useView((v) => v.benchHeight)
  const figures = useForkFigures(fork)
  const { hint, watch } = useHint()
  const { title } = useForkWords(fork)
  if (!strip) return null
  return (
    <div
      className="flex h-full flex-col px-3.5 pt-2 pb-1.5"
      data-panel={path?.id ?? fork.id}
      role="group"
      aria-label={`${title} on ${channel.name}`}
      {...watch}
    >
      <ForkHead fork={fork} path={path} channel={channel} />
      <div className="grid min-h-0 flex-1 grid-cols-[212px_minmax(0,1fr)] gap-4">
        <div className="min-h-0 overflow-y-auto">
          <ForkPicture fork={fork} path={path} figures={figures} height={height - 112} />
          <ForkSays fork={fork} figures={figures} hint={hint} />
        </div>
        <div className="min-h-0 overflow-y-auto">
          {path ? (
            <PathScales path={path} part={figures?.each.find((e) => e.path === path.id)?.part} />
          ) : (
            <ForkScales fork={fork} name={title} />
          )}
        </div>
      </div>
    </div>
  )
}
