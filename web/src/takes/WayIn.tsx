import type { Channel } from '../api/types'
import { carry } from '../board/carry'
import { moveWayIn, removeWayIn, wayInIndex } from './wayIn'

/** The way in of a row: a bracket in its chain. What stands before it is recorded, what stands behind it is only heard. It
    is dragged along the chain; the arrow keys move it by a stage, Delete takes it away. */
export function WayIn({ channel, height }: { channel: Channel; height: number }) {
  const at = wayInIndex(channel)
  const words = `what stands before it is recorded: ${at + 1} of ${channel.chain.nodes.length}`
  return (
    <span
      role="slider"
      tabIndex={0}
      draggable
      aria-label={`Way in of ${channel.name}`}
      aria-orientation="horizontal"
      aria-valuemin={0}
      aria-valuemax={channel.chain.nodes.length}
      aria-valuenow={at + 1}
      aria-valuetext={words}
      title={`The way in: ${words}. Drag it along the chain`}
      className="relative z-10 min-h-6 w-6 shrink-0 cursor-ew-resize rounded-[2px]"
      style={{ height, color: 'var(--live)' }}
      onClick={(e) => e.stopPropagation()}
      onDragStart={(e) => carry(e, { wayIn: channel.id })}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key]
        if (by && at + 1 + by <= channel.chain.nodes.length) void moveWayIn(channel, at + 1 + by)
        else if (e.key === 'Delete' || e.key === 'Backspace') void removeWayIn(channel)
        else return
        e.preventDefault()
        e.stopPropagation()
      }}
    >
      <span
        className="pointer-events-none absolute inset-y-0 left-2 w-2 border-[2.5px] border-r-0"
        style={{ borderColor: 'currentColor' }}
      />
      <i
        className="pointer-events-none absolute right-4 -bottom-3.5 text-small whitespace-nowrap"
        style={{ color: 'var(--live)' }}
      >
        recorded
      </i>
      <i className="water-label pointer-events-none absolute -bottom-3.5 left-4 text-small whitespace-nowrap">
        only heard
      </i>
    </span>
  )
}
