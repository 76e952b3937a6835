import type { Clip } from '../api/types'
import { useSession } from '../session/store'
import { ask, callOff, inWords } from './worked'

/** What of the selected clips is not worked out yet: how far it is, and how it is called off or asked for. */
export function WorkOfClips({ clips }: { clips: Clip[] }) {
  const works = useSession((s) => s.worked)
  const work = works.find((w) => w.state !== 'done' && clips.some((c) => w.clips.includes(c.id)))
  if (!work) return null
  const under = work.state === 'running' || work.state === 'waiting'
  return (
    <span className="flex min-w-0 items-center gap-2" role="status">
      <span className="line-clamp-2 min-w-0 text-small leading-[14px]">{inWords(work)}</span>
      <button
        className="btn btn-xs btn-outline shrink-0 font-normal"
        onClick={() => void (under ? callOff(work) : ask(work))}
      >
        {under ? 'Call it off' : work.state === 'failed' ? 'Try again' : 'Work it out'}
      </button>
    </span>
  )
}
