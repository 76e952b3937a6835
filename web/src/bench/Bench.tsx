import { findStage, useSession } from '../live/session'
import { useView } from '../live/view'
import { ChainView } from './ChainView'
import { Sends } from './Sends'
import { StagePanel } from './StagePanel'

/** The selected row spread out: its chain and sends on the left, the selected stage on the right. */
export function Bench() {
  const project = useSession((s) => s.project)!
  const { channel: channelId, stage: stageId } = useView()
  const channel = project.channels.find((c) => c.id === channelId)
  const found = findStage(project, stageId)
  return (
    <section
      className="flex h-[300px] shrink-0"
      style={{ background: 'var(--paper-2)', borderTop: '2px solid var(--ink)' }}
      aria-label="Bench"
    >
      {channel ? (
        <>
          <div className="flex min-w-0 flex-1 flex-col">
            <ChainView channel={channel} />
            <Sends channel={channel} />
          </div>
          <div className="w-[500px] shrink-0" style={{ borderLeft: '1px solid var(--hair)' }}>
            {found && found.channel.id === channel.id ? (
              <StagePanel key={found.stage.id} stage={found.stage} channel={channel} />
            ) : (
              <p className="soft p-5">Select a stage to see what it does, or press / to add one.</p>
            )}
          </div>
        </>
      ) : (
        <p className="soft m-auto">Select a row: its chain is spread out here. Press ? for the keys.</p>
      )}
    </section>
  )
}
