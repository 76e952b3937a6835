import type { Channel, Trace } from '../api/types'
import { legs } from './traced'

const LANE = 12
const FIGURE = 58

const db = (v: number) => (v <= -120 ? 'off' : `${v > 0 ? '+' : ''}${v.toFixed(1)}`.replace('-', '−'))

/** A trace on the board: each way a lane from row to row, and what each comes to where it arrives. What is set on the
    way is marked at its own place: levels, sends. */
export function TracedPath({
  trace,
  rows,
  height,
}: {
  trace: Trace
  rows: Channel[]
  height: (c: Channel) => number
}) {
  const place = new Map<string, number>()
  let bottom = 0
  for (const c of rows) place.set(c.id, (bottom += height(c)))
  const drawn = legs(trace).filter((l) => place.has(l.from) && place.has(l.to))
  const width = FIGURE + 16 + trace.ways.length * LANE
  const x = (way: number) => FIGURE + 8 + way * LANE
  const end = place.get(trace.to)
  return (
    <svg
      className="pointer-events-none absolute top-0 right-0 z-20"
      width={width}
      height={bottom}
      role="img"
      aria-label={trace.says}
      data-testid="traced-path"
    >
      {drawn.map((l, i) => {
        const [a, b] = [place.get(l.from)! - 10, place.get(l.to)! - 18]
        const turn = b > a ? 4 : -4
        return (
          <path
            key={i}
            d={`M${FIGURE} ${a}H${x(l.way) - 4}Q${x(l.way)} ${a} ${x(l.way)} ${a + turn}V${b - turn}Q${x(l.way)} ${b} ${x(l.way) - 4} ${b}H${FIGURE + 4}`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.8}
            strokeDasharray={l.dead ? '2 5' : undefined}
          />
        )
      })}
      {end !== undefined && (
        <g>
          <rect x={2} y={end - 29} width={FIGURE} height={20} rx={3} fill="var(--ink)" />
          <text
            className="figure"
            x={FIGURE - 4}
            y={end - 14}
            textAnchor="end"
            fontSize={13}
            fontWeight={700}
            fill="var(--paper)"
          >
            {db(trace.sum)} dB
          </text>
        </g>
      )}
    </svg>
  )
}
