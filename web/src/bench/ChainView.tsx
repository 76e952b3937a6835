import type { Channel } from '../api/types'
import { carried } from '../board/carry'
import { Depth } from '../controls/Depth'
import { shownChain } from '../live/session'
import { setView, useView } from '../live/view'
import { ChainHead } from './ChainHead'
import { StageCard } from './StageCard'

/** The chain, large: stages joined by the signal, with the depth at every point. */
export function ChainView({ channel }: { channel: Channel }) {
  const trials = useView((v) => v.trials)
  const { owner, chain } = shownChain(channel, trials)
  const stages = chain.nodes.flatMap((n) => (n.stage ? [n.stage] : []))
  return (
    <div className="flex min-h-0 flex-1 flex-col px-3.5 pt-2.5">
      <ChainHead channel={channel} />
      <div
        className="flex min-h-0 flex-1 items-center overflow-x-auto"
        onDragOver={(e) => carried(e) && e.preventDefault()}
        onDrop={(e) => {
          const c = carried(e)
          if (!c) return
          e.preventDefault()
          c.drop(owner, stages.length)
        }}
      >
        <Wire />
        <Depth point={`in ${channel.id}`} title="Level at the input" />
        {stages.map((s, i) => (
          <span key={s.id} className="flex items-center">
            <Wire />
            <StageCard
              stage={s}
              channel={channel}
              owner={owner}
              index={i}
              off={chain.bypass}
              width={stages.length < 5 ? 112 : stages.length < 6 ? 94 : 84}
            />
            <Wire />
            <Depth point={`after ${s.id}`} title={`Level after ${s.name || 'this stage'}`} />
          </span>
        ))}
        <Wire />
        <button
          className="btn btn-xs btn-outline shrink-0 font-normal"
          onClick={() => setView({ dialog: { kind: 'effects', owner, index: stages.length } })}
        >
          Add a stage <kbd className="kbd kbd-xs">/</kbd>
        </button>
      </div>
    </div>
  )
}

const Wire = () => <span className="h-px w-3 shrink-0" style={{ background: 'var(--deep)' }} />
