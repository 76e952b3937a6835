import { ClipPanel } from '../clips/ClipPanel'
import { PieceView } from '../clips/PieceView'
import { treats } from '../clips/treatment'
import { findFork, findStage } from '../document/chain'
import { PassagePanel } from '../passages/PassagePanel'
import { RoutePanel } from '../routing/RoutePanel'
import { useSession } from '../session/store'
import { useViewOf } from '../session/view'
import { Beside, roomFor } from './Beside'
import { BenchGrip } from './BenchGrip'
import { ChainView } from './ChainView'
import { ForkPanel } from './ForkPanel'
import { RowLine } from './RowLine'
import { RowSays } from './RowSays'
import { SendPanel } from './SendPanel'
import { StagePanel } from './StagePanel'
import { Strip } from './Strip'

/** The selected row spread out: its chain as a section through the sea, where it comes from and goes to, its level and
    sends; on the right what is selected of it, or what was asked for. Without a row it is a strip. */
export function Bench() {
  const project = useSession((s) => s.project)!
  const {
    channel: id,
    dialog,
    benchHeight,
    pinned: pinnedId,
    clips: picked,
  } = useViewOf('channel', 'dialog', 'benchHeight', 'pinned', 'clips')
  const clips = project.channels.flatMap((c) => c.clips.filter((x) => picked.includes(x.id)))
  const channel = project.channels.find((c) => c.id === id)
  const pinned = findStage(project, pinnedId)
  const height = Math.max(benchHeight, (dialog && roomFor[dialog.kind]) ?? 0)
  if (!channel && !dialog) return <Strip />
  return (
    <section
      className="bench relative flex shrink-0"
      style={{ height, background: 'var(--paper-2)', borderTop: '2px solid var(--ink)' }}
      aria-label="Bench"
    >
      <BenchGrip />
      {channel && clips.length > 0 ? (
        <div className="flex min-w-0 flex-1 flex-col overflow-hidden">
          <PieceView clips={clips} channel={channel} />
        </div>
      ) : channel ? (
        <div className="flex min-w-0 flex-1 flex-col overflow-hidden">
          <ChainView key={channel.id} channel={channel} />
          <RowSays channel={channel} />
          <RowLine channel={channel} />
        </div>
      ) : (
        <p className="soft m-auto text-label">Select a row: its chain is spread out here.</p>
      )}
      {pinned && (
        <Right key={`pinned ${pinned.stage.id}`}>
          <StagePanel stage={pinned.stage} channel={pinned.channel} pinned narrow />
        </Right>
      )}
      {dialog ? (
        <Right>
          <Beside dialog={dialog} />
        </Right>
      ) : (
        channel && <Selected channelId={id} />
      )}
    </section>
  )
}

function Right({ children }: { children: React.ReactNode }) {
  return (
    <div className="min-h-0 shrink-0" style={{ borderLeft: '1px solid var(--hair)' }}>
      {children}
    </div>
  )
}

/** What is selected of the row: a passage, a send, a fork or path, a stage; else where its signal goes. */
function Selected({ channelId }: { channelId: string }) {
  const project = useSession((s) => s.project)!
  const { stage: id, pinned, clips: picked } = useViewOf('stage', 'pinned', 'clips')
  const channel = project.channels.find((c) => c.id === channelId)!
  const passage = project.passages?.find((x) => x.id === id)
  const send = channel.sends.find((s) => s.id === id)
  const found = findStage(project, id)
  const braid = found ? null : findFork(project, id)
  const clips = project.channels.flatMap((c) => c.clips.filter((x) => picked.includes(x.id)))
  if (clips.length && !treats(clips, project, id))
    return (
      <Right key={clips[0]!.id}>
        <ClipPanel clips={clips} channel={channel} />
      </Right>
    )
  if (passage)
    return (
      <Right key={id}>
        <div className="h-full w-[700px]">
          <PassagePanel id={passage.id} />
        </div>
      </Right>
    )
  if (send)
    return (
      <Right key={id}>
        <div className="h-full w-[440px]">
          <SendPanel send={send} channel={channel} />
        </div>
      </Right>
    )
  const inPiece = found?.channel ?? braid?.channel
  const row = clips.length && inPiece ? { ...inPiece, name: clips[0]!.name } : channel
  if (row && braid?.channel.id === row.id)
    return (
      <Right key={braid.fork.id}>
        <div className={`h-full ${pinned ? 'w-[480px]' : 'w-[542px]'}`}>
          <ForkPanel fork={braid.fork} path={braid.path} channel={row} />
        </div>
      </Right>
    )
  if (row && found?.channel.id === row.id && found.stage.id !== pinned)
    return (
      <Right key={id}>
        <StagePanel stage={found.stage} channel={row} narrow={pinned !== ''} />
      </Right>
    )
  if (pinned) return null
  return (
    <Right>
      <div className="h-full w-[480px]">
        <RoutePanel channel={channel} />
      </div>
    </Right>
  )
}
