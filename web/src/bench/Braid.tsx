import type { Channel, Fork, Node, Path } from '../api/types'
import { carried } from '../board/carry'
import { Depth } from '../controls/Depth'
import { NameField } from '../controls/NameField'
import { figure } from '../controls/format'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { ForkCard } from './ForkCard'
import { StrandCard } from './StrandCard'
import { Wire } from './Wire'
import { fan, forkHeight, middles, strandHeight } from './braid'
import { setPath } from './forks'

type Drawn = { channel: Channel; off: boolean; open: (p: Path) => boolean }

const FAN = 16

/** A fork, large: its head, the strands that divide and join, and the depth behind it. */
export function Braid({ fork, owner, index, ...d }: { fork: Fork; owner: string; index: number } & Drawn) {
  const off = d.off || fork.bypass
  const h = forkHeight(fork, d.open)
  return (
    <span className="flex items-center">
      <ForkCard fork={fork} channel={d.channel} owner={owner} index={index} off={off} />
      <Fan fork={fork} open={d.open} off={off} height={h} />
      <span className="flex flex-col" style={{ gap: 3 }}>
        {fork.paths.map((p) => (
          <Strand key={p.id} path={p} {...d} off={off} />
        ))}
      </span>
      <Fan fork={fork} open={d.open} off={off} height={h} back />
      <Depth point={`after ${fork.id}`} title={`Level after ${fork.name || 'this fork'}`} />
    </span>
  )
}

function Fan(p: { fork: Fork; open: Drawn['open']; off: boolean; height: number; back?: boolean }) {
  const selected = useView((v) => v.stage)
  return (
    <svg
      width={FAN}
      height={p.height}
      viewBox={`0 0 ${FAN} ${p.height}`}
      className="shrink-0"
      style={p.back ? { transform: 'scaleX(-1)' } : undefined}
      aria-hidden
    >
      {middles(p.fork, p.open).map((y, i) => {
        const path = p.fork.paths[i]!
        return (
          <path
            key={path.id}
            d={fan(p.height / 2, y, FAN)}
            fill="none"
            stroke="var(--deep)"
            strokeWidth={path.id === selected ? 2.4 : 1.2}
            strokeDasharray={path.mute || p.off ? '3 3' : undefined}
          />
        )
      })}
    </svg>
  )
}

/** One path: its name, what stands on it, and the depth at its end. Folded, only how much is on it. */
function Strand({ path, channel, off, open }: { path: Path } & Drawn) {
  const selected = useView((v) => v.stage === path.id)
  const listened = useView((v) => v.listening?.paths?.includes(path.id) ?? false)
  const renaming = useView((v) => v.renaming === path.id)
  const strip = useSession((s) => s.strip)
  const nodes = path.chain.nodes
  const whole = open(path)
  return (
    <span
      className="flex items-center rounded-[3px] pr-1"
      style={{ height: strandHeight(path, open), background: selected ? 'var(--shoal-2)' : undefined }}
      onDragOver={(e) => carried(e) && e.preventDefault()}
      onDrop={(e) => {
        const c = carried(e)
        if (!c) return
        e.preventDefault()
        e.stopPropagation()
        c.drop(path.id, nodes.length)
      }}
    >
      {renaming ? (
        <NameField
          name={path.name}
          label="Name of the path"
          onName={(name) => void setPath(path, { name }, 'Rename')}
        />
      ) : (
        <button
          className="flex h-[24px] w-[76px] shrink-0 items-center gap-1 pl-1 text-left text-small"
          style={{ fontWeight: selected ? 700 : 400 }}
          aria-pressed={selected}
          aria-label={`Path ${path.name}${path.mute ? ', muted' : ''}${listened ? ', listened to' : ''}`}
          title={`${path.name}. Double click names it.`}
          onClick={() => select(channel.id, path.id)}
          onDoubleClick={() => setView({ renaming: path.id })}
        >
          <span className={`truncate ${path.mute ? 'struck soft' : ''}`}>{path.name}</span>
          {listened && <span className="soft shrink-0 text-small">heard</span>}
          <Wire grow />
        </button>
      )}
      {whole ? (
        <Nodes nodes={nodes} owner={path.id} channel={channel} off={off || path.chain.bypass} open={open} />
      ) : (
        <span className="soft px-1 text-small whitespace-nowrap">
          {nodes.length === 0 ? 'dry' : nodes.length === 1 ? '1 stage' : `${nodes.length} stages`}
        </span>
      )}
      <Wire grow />
      <span
        className={`figure mr-1.5 w-[34px] shrink-0 text-right text-small ${selected ? '' : 'soft'}`}
        title="Level of the path"
      >
        {strip && path.level !== 0 ? figure(strip.path, path.level) : ''}
      </span>
      <Depth point={`path ${path.id}`} title={`Level at the end of ${path.name}`} />
    </span>
  )
}

/** The nodes of a strand, one behind the other. */
export function Nodes(p: { nodes: Node[]; owner: string } & Drawn) {
  return p.nodes.map((n, i) =>
    n.stage ? (
      <span key={n.stage.id} className="flex items-center">
        <Wire />
        <StrandCard stage={n.stage} channel={p.channel} owner={p.owner} index={i} off={p.off} />
        <Wire />
        <Depth point={`after ${n.stage.id}`} title={`Level after ${n.stage.name || 'this stage'}`} />
      </span>
    ) : (
      <span key={n.fork!.id} className="flex items-center">
        <Wire />
        <Braid fork={n.fork!} owner={p.owner} index={i} channel={p.channel} off={p.off} open={p.open} />
      </span>
    ),
  )
}
