import type { Channel } from '../api/types'
import { carry } from '../board/carry'
import { stageName, idOf } from '../document/chain'
import { useSession } from '../session/store'
import { holds, lineIndex, lineWords, liftLine, moveLine, useLineWork } from './line'

type Props = { channel: Channel; height: number }

/** The line in a chain: a pair of wavy strokes, broken where what is printed no longer holds. It is dragged along the
    chain; the arrow keys move it by a stage, Delete lifts it. */
export function Waterline({ channel, height }: Props) {
  const work = useLineWork(channel.id)
  const effects = useSession((s) => s.effects)
  const at = lineIndex(channel)
  const node = channel.chain.nodes[at]
  if (!node) return null
  const last = node.stage ? stageName(node.stage, effects) : node.fork!.name || 'the fork'
  const words = `printed as far as ${last}: ${lineWords(work)}`
  return (
    <span
      role="slider"
      tabIndex={0}
      draggable
      data-line={channel.id}
      aria-label={`Line of ${channel.name}`}
      aria-orientation="horizontal"
      aria-valuemin={0}
      aria-valuemax={channel.chain.nodes.length}
      aria-valuenow={at + 1}
      aria-valuetext={words}
      title={`${words}. Drag it along the chain`}
      className="relative z-10 grid min-h-6 w-6 shrink-0 cursor-ew-resize place-items-center rounded-[2px]"
      style={{ height, color: 'var(--deep)' }}
      onClick={(e) => e.stopPropagation()}
      onDragStart={(e) => carry(e, { line: channel.id })}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key]
        if (by && at + 1 + by <= channel.chain.nodes.length) void moveLine(channel, at + 1 + by)
        else if (e.key === 'Delete' || e.key === 'Backspace') void liftLine(channel)
        else return
        e.preventDefault()
        e.stopPropagation()
      }}
      key={idOf(node)}
    >
      <Strokes height={height} whole={holds(work)} />
    </span>
  )
}

/** Two wavy strokes, one beside the other. */
function Strokes({ height, whole }: { height: number; whole: boolean }) {
  const waves = Math.max(2, Math.round(height / 12))
  const step = height / waves
  const path = (x: number) =>
    `M${x} 0` +
    Array.from({ length: waves }, (_, i) => {
      const side = i % 2 ? -3 : 3
      return `q${side} ${step / 2} 0 ${step}`
    }).join('')
  return (
    <svg aria-hidden width={16} height={height} className="overflow-visible">
      {[5, 10].map((x) => (
        <path
          key={x}
          d={path(x)}
          fill="none"
          stroke="currentColor"
          strokeWidth={1.6}
          strokeDasharray={whole ? undefined : '3 3.5'}
        />
      ))}
    </svg>
  )
}
