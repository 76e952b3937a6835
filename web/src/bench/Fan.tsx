import type { Fork } from '../api/types'
import { useView } from '../session/view'
import { fan, forkHeight, lines, type Open } from './braid'

/** The lines between where a fork divides, or joins, and its strands. */
export function Fan(p: { fork: Fork; open: Open; off: boolean; from: number; back?: boolean }) {
  const selected = useView((v) => v.stage)
  const height = forkHeight(p.fork, p.open)
  return (
    <svg
      width={WIDTH}
      height={height}
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="shrink-0 overflow-visible"
      style={p.back ? { transform: 'scaleX(-1)' } : undefined}
      aria-hidden
    >
      {lines(p.fork, p.open).map((y, i) => {
        const path = p.fork.paths[i]!
        return (
          <path
            key={path.id}
            d={fan(p.from, y, WIDTH)}
            fill="none"
            stroke="var(--deep)"
            strokeWidth={path.id === selected ? 2.4 : 1.4}
            strokeDasharray={path.mute || p.off ? '3 3' : undefined}
          />
        )
      })}
    </svg>
  )
}

const WIDTH = 22
