import { listenToAll } from '../live/listening'
import { findStage, stageName, useSession } from '../live/session'
import { useView } from '../live/view'

/** Says that this window hears one point only, and ends it. */
export function Listening() {
  const listening = useView((v) => v.listening)
  const bench = useView((v) => v.bench)
  const effects = useSession((s) => s.effects)
  const project = useSession((s) => s.project)!
  const found = listening && findStage(project, listening.node)
  if (!listening || !found) return null
  const name = stageName(found.stage, effects)
  return (
    <button
      style={{ bottom: bench ? 308 : 10 }}
      className="btn btn-sm btn-secondary fixed left-1/2 z-30 max-w-[420px] -translate-x-1/2 shadow-sm"
      onClick={listenToAll}
      title="Only this window hears it. Esc ends it."
    >
      <span className="truncate">
        You hear{' '}
        {listening.change
          ? `only what ${name} on ${found.channel.name} changes`
          : `${found.channel.name} up to ${name}`}
      </span>
      <kbd className="kbd kbd-xs">Esc</kbd>
    </button>
  )
}
