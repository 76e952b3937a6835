import { useSession } from '../session/store'
import { hearNow } from './hearing'

/** Which version is heard in place of now, and the way back. */
export function Instead() {
  const instead = useSession((s) => s.instead)
  if (!instead) return null
  return (
    <button
      className="btn btn-xs btn-secondary font-normal"
      title="Only in this window: the board shows the project as it is now"
      onClick={hearNow}
    >
      You hear “{instead.name}”, {instead.gain >= 0 ? '+' : '−'}
      {Math.abs(instead.gain).toFixed(1)} dB: back to now
    </button>
  )
}
