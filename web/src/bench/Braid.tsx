import type { Channel, Fork, Node, Path } from '../api/types'
import { carried } from '../board/carry'
import { Depth } from '../controls/Depth'
import { useView } from '../session/view'
import { Fan } from './Fan'
import { ForkCard } from './ForkCard'
import { StageCard } from './StageCard'
import { StrandChip } from './StrandChip'
import { StrandHead } from './StrandHead'
import { WayIn } from '../takes/WayIn'
import { wayInIndex } from '../takes/wayIn'
import { holds, lineIndex, UNDER, useLineWork } from '../waterline/line'
import { Waterline } from '../waterline/Waterline'
import { Wire } from './Wire'
import { type Open, HEAD, isOpen, LINE, lines, strandHeight } from './braid'

type Drawn = { channel: Channel; off: boolean; open: Open }

/** A fork, large: where it divides, its strands, where they join, and the depth behind it. */
export function Braid({ fork, owner, index, ...d }: { fork: Fork; owner: string; index: number } & Drawn) {
  const off = d.off || fork.bypass
  const rise = Math.min(LINE, lines(fork, d.open)[0]!) // how far it stands above the line that comes in
  return (
    <span className="flex items-start">
      <ForkCard fork={fork} channel={d.channel} owner={owner} index={index} off={off} />
      <span className="flex" style={{ marginTop: -rise }}>
        <Fan fork={fork} open={d.open} off={off} from={LINE + rise} />
        <span className="flex flex-col gap-1">
          {fork.paths.map((p) => (
            <Strand key={p.id} path={p} {...d} off={off} />
          ))}
        </span>
        <Fan fork={fork} open={d.open} off={off} from={LINE + rise} back />
      </span>
      <At>
        <Depth
          point={`after ${fork.id}`}
          title={`Level after ${fork.name || 'this fork'}`}
          place={{ owner, index: index + 1, node: fork.id }}
        />
      </At>
    </span>
  )
}

/** One path: its name, its level and listening on the strand; open, its stages hang below with their plumbs. */
function Strand({ path, channel, off, open }: { path: Path } & Drawn) {
  const selected = useView((v) => v.stage === path.id)
  const nodes = path.chain.nodes
  const whole = open(path) && nodes.length > 0
  const end = <Depth point={`path ${path.id}`} title={`Level at the end of ${path.name}`} />
  return (
    <span
      className="flex flex-col rounded-[6px]"
      style={{
        height: strandHeight(path, open),
        background: selected ? 'color-mix(in srgb, var(--shoal-3) 28%, transparent)' : undefined,
      }}
      onDragOver={(e) => carried(e) && e.preventDefault()}
      onDrop={(e) => {
        const c = carried(e)
        if (!c) return
        e.preventDefault()
        e.stopPropagation()
        c.drop(path.id, nodes.length)
      }}
    >
      <span className="flex shrink-0 items-center [&>.depth]:-translate-y-1.5" style={{ height: HEAD }}>
        {!whole && <Wire />}
        <StrandHead path={path} channel={channel} selected={selected} />
        {!whole &&
          nodes.map((n, i) => (
            <span key={(n.stage ?? n.fork!).id} className="flex items-center">
              <Wire />
              <StrandChip
                node={n}
                channel={channel}
                owner={path.id}
                index={i}
                off={off || path.chain.bypass}
              />
            </span>
          ))}
        {!whole && <Wire grow />}
        {!whole && end}
      </span>
      {whole && (
        <span className="relative flex items-start">
          <span
            className="pointer-events-none absolute inset-x-0 h-px"
            style={{ top: LINE, background: 'var(--deep)' }}
          />
          <Nodes
            nodes={nodes}
            owner={path.id}
            channel={channel}
            off={off || path.chain.bypass}
            open={open}
            beside
          />
          <span className="flex h-9 relative grow items-center [&>.depth]:-translate-y-2.5">
            <span className="ml-auto" />
            {end}
          </span>
        </span>
      )}
    </span>
  )
}

/** What stands on the line of a chain: wires, and above them figures. */
export const At = ({ children }: { children: React.ReactNode }) => (
  <span className="flex h-9 items-center [&>.depth]:-translate-y-2.5">{children}</span>
)

/** Stages and forks, one behind the other, joined by the signal. */
export function Nodes(p: { nodes: Node[]; owner: string; beside?: boolean; whole?: boolean } & Drawn) {
  const line = lineIndex(p.channel)
  const wayIn = wayInIndex(p.channel)
  const printed = holds(useLineWork(p.channel.id)) && p.whole
  return p.nodes.map((n, i) => {
    const place = { channel: p.channel, owner: p.owner, index: i, off: p.off }
    const folded = n.fork && !p.whole && !isOpen(n.fork, p.open)
    return (
      <span
        key={(n.stage ?? n.fork!).id}
        className="flex items-start"
        style={printed && i <= line ? UNDER : undefined}
      >
        <At>
          <Wire />
        </At>
        {n.stage ? (
          <StageCard stage={n.stage} beside={p.beside} {...place} />
        ) : folded ? (
          <ForkCard fork={n.fork!} folded {...place} />
        ) : (
          <Braid fork={n.fork!} open={p.open} {...place} />
        )}
        {(n.stage || folded) && (
          <At>
            <Wire />
            <Depth
              point={`after ${(n.stage ?? n.fork!).id}`}
              title={`Level after ${(n.stage ?? n.fork!).name || (n.stage ? 'this stage' : 'this fork')}`}
              place={{ owner: p.owner, index: i + 1, node: (n.stage ?? n.fork!).id }}
            />
          </At>
        )}
        {p.whole && i === wayIn && <WayIn channel={p.channel} height={120} />}
        {p.whole && i === line && <Waterline channel={p.channel} height={120} />}
      </span>
    )
  })
}
