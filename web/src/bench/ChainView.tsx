import { useEffect } from 'react'
import type { Channel } from '../api/types'
import { carried } from '../board/carry'
import { Depth } from '../controls/Depth'
import { findNode, holds, shownChain } from '../document/chain'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { useBlind } from '../trials/actions'
import { At, Nodes } from './Braid'
import { ChainHead } from './ChainHead'
import { Sea } from './Sea'
import { Wire } from './Wire'
import { forkHeight, LINE, lines, type Open } from './braid'
import { useBox } from './useBox'

/** The chain of the row on the bench; while its alternatives are compared blind, none is shown. */
export function ChainView({ channel }: { channel: Channel }) {
  return useBlind(channel.id) ? <Blind channel={channel} /> : <Chain channel={channel} />
}

function Blind({ channel }: { channel: Channel }) {
  return (
    <div className="flex min-h-0 flex-1 flex-col px-3.5 pt-2">
      <ChainHead channel={channel} />
      <p className="soft my-auto max-w-[460px] text-label">
        The alternatives of {channel.name} are compared blind: hear 1 and 2 ( Y for the next ), then choose.
        Only then is it said which is which.
      </p>
    </div>
  )
}

/** From the top of the water's picture to where stages stand when no strand rises above them. */
const TOP = 12

/** The chain as a section through the sea: stages on the surface, plumbs under them, forks that divide into strands,
    and the depth between all. What does not fit scrolls, with both ends in sight. */
export function Chain({
  channel,
  head,
  onAdd,
}: {
  channel: Channel
  head?: React.ReactNode
  onAdd?: () => void
}) {
  const trials = useView((v) => v.trials)
  const selected = useView((v) => v.stage)
  const project = useSession((s) => s.project)
  const { owner, chain } = shownChain(channel, trials)
  const { box, less, more, below, height, look } = useBox()
  const nodes = chain.nodes
  const heart: Open = (x) => x.id === selected || ('chain' in x && holds(x.chain.nodes, selected))
  const first: Open = (x) => heart(x) || nodes.some((n) => n.fork?.paths.some((p) => p === x))
  const forks = nodes.flatMap((n) => n.fork ?? [])
  const open = forks.every((f) => forkHeight(f, first) <= height - TOP) ? first : heart
  const rise = Math.max(0, ...forks.map((f) => LINE - (lines(f, open)[0] ?? LINE)))
  const isFork = nodes.some((n) => n.fork && holds([n], selected)) && !findNode(project, selected)?.node.stage
  useEffect(() => {
    // of a fork, as much as there is room for
    box.current
      ?.querySelector('[aria-pressed=true]')
      ?.scrollIntoView({ block: 'nearest', inline: isFork ? 'start' : 'nearest', behavior: 'instant' })
  }, [selected, isFork, box])
  const top = TOP + Math.max(0, rise)
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      {head ?? <ChainHead channel={channel} />}
      <div className="relative flex min-h-0 flex-1">
        <Sea line={top + LINE} seed={channel.id.length + nodes.length} />
        <span className="relative z-10 flex shrink-0 items-start pl-3" style={{ paddingTop: top }}>
          <At>
            <Depth
              point={`in ${channel.id}`}
              title="Level at the input"
              place={{ owner, index: 0, node: '' }}
            />
          </At>
        </span>
        <div
          ref={box}
          className="relative flex min-w-0 overflow-auto"
          style={{ maskImage: edges(less, more, below), maskComposite: 'intersect' }}
          onScroll={look}
          onDragOver={(e) => carried(e) && e.preventDefault()}
          onDrop={(e) => {
            const c = carried(e)
            if (!c) return
            e.preventDefault()
            c.drop(owner, nodes.length)
          }}
        >
          <div className="flex shrink-0 items-start pb-2" style={{ paddingTop: top }}>
            <Nodes nodes={nodes} owner={owner} channel={channel} off={chain.bypass} open={open} whole />
          </div>
        </div>
        <span className="relative z-10 flex shrink-0 items-start pr-3" style={{ paddingTop: top }}>
          <At>
            <Wire />
            <button
              className="btn btn-xs btn-outline font-normal"
              style={{ background: 'var(--card)' }}
              aria-label="Add a stage"
              title="Add a stage ( / )"
              onClick={onAdd ?? (() => setView({ dialog: { kind: 'effects', owner, index: nodes.length } }))}
            >
              + Stage
            </button>
          </At>
          {nodes.length === 0 && (
            <span className="soft absolute left-2 text-label whitespace-nowrap" style={{ top: top + 44 }}>
              No stage yet: what comes in goes on as it is.
            </span>
          )}
        </span>
      </div>
    </div>
  )
}

/** Fades where there is more. */
function edges(less: boolean, more: boolean, below: boolean): string | undefined {
  const fades: string[] = []
  if (less || more)
    fades.push(
      `linear-gradient(to right, ${less ? 'transparent' : 'black'}, black 40px, ` +
        `black calc(100% - 40px), ${more ? 'transparent' : 'black'})`,
    )
  if (below) fades.push('linear-gradient(to bottom, black calc(100% - 30px), transparent)')
  return fades.join(', ') || undefined
}
