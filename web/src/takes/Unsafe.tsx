import { useSession } from '../session/store'

/** What of a recording has not reached the server, and why: it waits in this browser. */
export function Unsafe() {
  const { seconds, trouble } = useSession((s) => s.unsafe)
  const on = useSession((s) => s.recording !== null)
  if (!on || !trouble) return null
  return (
    <span role="status" className="text-small font-bold" style={{ color: 'var(--caution)' }}>
      {Math.ceil(seconds)} s of the recording wait in this browser: {trouble}
    </span>
  )
}
