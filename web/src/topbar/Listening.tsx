import { listenToAll } from '../live/listening'
import { findStage, stageName, useSession } from '../live/session'
import { useView } from '../live/view'

/** Says that this window hears one point only, and ends it. */
export function Listening() {
  const listening = useView((v) => v.listening)
  const effects = useSession((s) => s.effects)
  const project = useSession((s) => s.project)!
  const found = listening && findStage(project, listening.node)
  if (!listening || !found) return null
  const name = stageName(found.stage, effects)
  return (
    <button
      className="btn btn-xs btn-secondary max-w-[190px]"
      onClick={listenToAll}
      title="Only this window hears it. Esc ends it."
    >
      <span className="truncate">{listening.change ? `Only what ${name} changes` : `Up to ${name}`}</span>×
    </button>
  )
}
