import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import type { Channel, Path } from '../api/types'
import { carried } from '../board/carry'
import { Depth } from '../controls/Depth'
import { holds } from '../live/chain'
import { shownChain } from '../live/session'
import { setView, useView } from '../live/view'
import { chainHeight } from './braid'
import { Braid } from './Braid'
import { ChainHead } from './ChainHead'
import { StageCard } from './StageCard'
import { Wire } from './Wire'

/** The chain, large: stages joined by the signal, forks as strands that divide and join, with the depth at
    every point. Strands that do not fit are folded, except what is selected. */
export function ChainView({ channel }: { channel: Channel }) {
  const trials = useView((v) => v.trials)
  const selected = useView((v) => v.stage)
  const { owner, chain } = shownChain(channel, trials)
  const [room, box] = useHeight()
  const nodes = chain.nodes
  const braided = nodes.some((n) => n.fork)
  const fits = chainHeight(nodes, () => true) <= room
  const open = (p: Path) => fits || p.id === selected || holds(p.chain.nodes, selected)
  useEffect(() => {
    box.current
      ?.querySelector('[aria-pressed=true]')
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest', behavior: 'instant' })
  }, [selected, box])
  return (
    <div className="flex min-h-0 flex-1 flex-col px-3.5 pt-2.5">
      <ChainHead channel={channel} />
      <div
        ref={box}
        className="flex min-h-0 flex-1 overflow-auto"
        onDragOver={(e) => carried(e) && e.preventDefault()}
        onDrop={(e) => {
          const c = carried(e)
          if (!c) return
          e.preventDefault()
          c.drop(owner, nodes.length)
        }}
      >
        <div className="my-auto flex items-center py-1">
          <Wire />
          <Depth point={`in ${channel.id}`} title="Level at the input" />
          {nodes.map((n, i) =>
            n.stage ? (
              <span key={n.stage.id} className="flex items-center">
                <Wire />
                <StageCard
                  stage={n.stage}
                  channel={channel}
                  owner={owner}
                  index={i}
                  off={chain.bypass}
                  width={nodes.length < 5 && !braided ? 112 : nodes.length < 6 && !braided ? 94 : 84}
                />
                <Wire />
                <Depth point={`after ${n.stage.id}`} title={`Level after ${n.stage.name || 'this stage'}`} />
              </span>
            ) : (
              <span key={n.fork!.id} className="flex items-center">
                <Wire />
                <Braid
                  fork={n.fork!}
                  owner={owner}
                  index={i}
                  channel={channel}
                  off={chain.bypass}
                  open={open}
                />
              </span>
            ),
          )}
          <Wire />
          <button
            className="btn btn-xs btn-outline shrink-0 font-normal"
            onClick={() => setView({ dialog: { kind: 'effects', owner, index: nodes.length } })}
          >
            Add a stage <kbd className="kbd kbd-xs">/</kbd>
          </button>
        </div>
      </div>
    </div>
  )
}

/** The height of a box, as it is now. */
function useHeight() {
  const box = useRef<HTMLDivElement>(null)
  const [height, setHeight] = useState(170)
  useLayoutEffect(() => {
    const o = new ResizeObserver(([e]) => e && setHeight(e.contentRect.height))
    o.observe(box.current!)
    return () => o.disconnect()
  }, [])
  return [height - 8, box] as const
}
