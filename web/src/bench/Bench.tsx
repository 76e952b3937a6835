import { findFork, findStage } from '../document/chain'
import { PassagePanel } from '../passages/PassagePanel'
import { RoutePanel } from '../routing/RoutePanel'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { ChainView } from './ChainView'
import { ForkPanel } from './ForkPanel'
import { Sends } from './Sends'
import { StagePanel } from './StagePanel'

/** The selected row spread out: its chain and sends on the left, the selected stage on the right, and
    beside it a second one that is kept there. */
export function Bench() {
  const project = useSession((s) => s.project)!
  const { channel: channelId, stage: stageId, pinned: pinnedId } = useView()
  const channel = project.channels.find((c) => c.id === channelId)
  const found = findStage(project, stageId)
  const braid = found ? null : findFork(project, stageId)
  const passage = project.passages?.find((x) => x.id === stageId)
  const pinned = findStage(project, pinnedId)
  const panel = (f: NonNullable<typeof found>, isPinned: boolean) => (
    <div
      key={isPinned ? `pinned ${f.stage.id}` : f.stage.id}
      className={`${pinned ? 'w-[460px]' : 'w-[500px]'} shrink-0`}
      style={{ borderLeft: '1px solid var(--hair)' }}
    >
      <StagePanel stage={f.stage} channel={f.channel} pinned={isPinned} />
    </div>
  )
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
            {!pinned && !passage && <Sends channel={channel} />}
          </div>
          {pinned && panel(pinned, true)}
          {passage ? (
            <div
              key={passage.id}
              className={`${pinned ? 'w-[460px]' : 'w-[620px]'} shrink-0`}
              style={{ borderLeft: '1px solid var(--hair)' }}
            >
              <PassagePanel id={passage.id} />
            </div>
          ) : braid && braid.channel.id === channel.id ? (
            <div
              className={`${pinned ? 'w-[460px]' : 'w-[500px]'} shrink-0`}
              style={{ borderLeft: '1px solid var(--hair)' }}
            >
              <ForkPanel key={braid.fork.id} fork={braid.fork} path={braid.path} channel={channel} />
            </div>
          ) : found && found.channel.id === channel.id && found.stage.id !== pinned?.stage.id ? (
            panel(found, false)
          ) : pinned ? null : (
            <div className="w-[500px] shrink-0" style={{ borderLeft: '1px solid var(--hair)' }}>
              <RoutePanel channel={channel} />
            </div>
          )}
        </>
      ) : (
        <p className="soft m-auto">Select a row: its chain is spread out here. Press ? for the keys.</p>
      )}
    </section>
  )
}
