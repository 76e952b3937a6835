import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import type { Channel, Path } from '../api/types'
import { carried } from '../board/carry'
import { Depth } from '../controls/Depth'
import { findNode, holds, shownChain } from '../document/chain'
import { useSession } from '../session/store'
import { setView, useView } from '../session/view'
import { useBlind } from '../trials/actions'
import { Braid } from './Braid'
import { ChainHead } from './ChainHead'
import { StageCard } from './StageCard'
import { Wire } from './Wire'
import { chainHeight } from './braid'

/** The chain of the row on the bench; while its alternatives are compared blind, none is shown. */
export function ChainView({ channel }: { channel: Channel }) {
  return useBlind(channel.id) ? <Blind channel={channel} /> : <Chain channel={channel} />
}

function Blind({ channel }: { channel: Channel }) {
  return (
    <div className="flex min-h-0 flex-1 flex-col px-3.5 pt-2.5">
      <ChainHead channel={channel} />
      <p className="soft my-auto max-w-[460px] text-label">
        The alternatives of {channel.name} are compared blind: hear 1 and 2 ( Y for the next ), then choose.
        Only then is it said which is which.
      </p>
    </div>
  )
}

/** The chain, large: stages joined by the signal, forks as strands that divide and join, with the depth at
    every point. Strands that do not fit are folded, except what is selected. */
function Chain({ channel }: { channel: Channel }) {
  const trials = useView((v) => v.trials)
  const selected = useView((v) => v.stage)
  const project = useSession((s) => s.project)
  const { owner, chain } = shownChain(channel, trials)
  const { height: room, box, more, look } = useBox()
  const nodes = chain.nodes
  const braided = nodes.some((n) => n.fork)
  const fits = chainHeight(nodes, () => true) <= room
  const open = (p: Path) => fits || p.id === selected || holds(p.chain.nodes, selected)
  const isFork = nodes.some((n) => n.fork && holds([n], selected)) && !findNode(project, selected)?.node.stage
  useEffect(() => {
    // of a fork, as much as there is room for
    box.current
      ?.querySelector('[aria-pressed=true]')
      ?.scrollIntoView({ block: 'nearest', inline: isFork ? 'start' : 'nearest', behavior: 'instant' })
  }, [selected, isFork, box])
  return (
    <div className="flex min-h-0 flex-1 flex-col px-3.5 pt-2.5">
      <ChainHead channel={channel} />
      <div
        ref={box}
        className="flex min-h-0 flex-1 overflow-auto"
        style={
          more ? { maskImage: 'linear-gradient(to right, black calc(100% - 48px), transparent)' } : undefined
        }
        onScroll={look}
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

/** A box that scrolls: how high it is, and whether there is more of it to the right. */
function useBox() {
  const box = useRef<HTMLDivElement>(null)
  const [height, setHeight] = useState(170)
  const [more, setMore] = useState(false)
  const look = () => {
    const b = box.current
    if (b) setMore(b.scrollLeft + b.clientWidth < b.scrollWidth - 8)
  }
  useLayoutEffect(() => {
    const o = new ResizeObserver(() => {
      setHeight(box.current!.clientHeight)
      look()
    })
    o.observe(box.current!)
    o.observe(box.current!.firstElementChild!)
    return () => o.disconnect()
  }, [])
  return { height: height - 8, box, more, look }
}
