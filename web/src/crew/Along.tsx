import { leaveAlong } from '../session/along'
import { useSession } from '../session/store'

/** With whom this window hears along, and the way out. */
export function Along() {
  const along = useSession((s) => s.along)
  if (!along) return null
  return (
    <button
      className="btn btn-xs btn-secondary font-normal"
      title="What you hear is theirs: playhead, loop, solo, listening point. Press to hear on your own."
      onClick={() => leaveAlong()}
    >
      Along with {along.name || 'somebody'} ×
    </button>
  )
}
