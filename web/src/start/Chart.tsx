import type { ProjectChart } from '../api/types'
import { tints } from '../theme/tints'

const width = 400
const head = 20
const most = 12
/** Of the whole: a section that is shorter has no room for its name. */
const LEAST = 0.09

/** A project drawn small: its sections over the surface, its rows as lines of sound under it, the water under what has
    stages. */
export function Chart({ of, height = 104 }: { of: ProjectChart; height?: number }) {
  const rows = of.rows.slice(0, most)
  const step = (height - head) / Math.max(rows.length, 3)
  const deep = Math.max(...rows.map((r) => r.stages), 1)
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      preserveAspectRatio="none"
      className="block w-full"
      style={{ height, background: 'var(--card)' }}
      aria-hidden
    >
      {rows.map((r, i) => {
        const y = head + i * step
        return (
          <g key={i}>
            <rect
              x={0}
              y={y}
              width={width * (r.stages / deep)}
              height={step}
              fill="var(--shoal-1)"
              opacity={r.stages ? 1 : 0}
            />
            {r.tint > 0 && <rect x={0} y={y} width={4} height={step} fill={tints[r.tint]} />}
            <line x1={0} x2={width} y1={y + step} y2={y + step} stroke="var(--hair)" strokeWidth={0.5} />
            {r.clips.map(([a = 0, b = 0], k) => (
              <rect
                key={k}
                x={a * width}
                y={y + step * 0.25}
                width={Math.max((b - a) * width, 1)}
                height={step * 0.5}
                fill={r.tint ? tints[r.tint] : 'var(--deep)'}
              />
            ))}
          </g>
        )
      })}
      <line x1={0} x2={width} y1={head} y2={head} stroke="var(--ink)" strokeWidth={1} />
      {of.sections.map((s, i) => (
        <line
          key={i}
          x1={s.at * width}
          x2={s.at * width}
          y1={4}
          y2={height}
          stroke="var(--ink)"
          strokeWidth={0.75}
          opacity={0.5}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  )
}

/** The names of a chart's sections, each where it begins, as far as there is room. */
export function ChartNames({ of }: { of: ProjectChart }) {
  return (
    <div className="pointer-events-none absolute inset-x-0 top-0 h-5 overflow-hidden" aria-hidden>
      {of.sections.map((s, i) => {
        const to = of.sections[i + 1]?.at ?? 1
        return (
          <span
            key={i}
            className="absolute top-[3px] truncate pl-1 text-small"
            style={{ left: `${s.at * 100}%`, width: `${(to - s.at) * 100}%` }}
          >
            {to - s.at > LEAST && s.name}
          </span>
        )
      })}
    </div>
  )
}
