import { useQuery } from '@tanstack/react-query'
import type { Channel, Reach } from '../api/types'
import { theEngine } from '../session/sound'
import { useSession } from '../session/store'
import { useView } from '../session/view'

const none: Reach = { feeds: [], fed: [], edges: [] }

/** What the selected row's signal meets, from Go. */
export function useReach(): Reach {
  const row = useView((v) => v.channel)
  const revision = useSession((s) => s.revision)
  const ready = useSession((s) => s.timeline !== null)
  const { data } = useQuery({
    queryKey: ['reach', row, revision],
    queryFn: () => theEngine()!.ask('reach', { id: row }),
    enabled: row !== '' && ready,
    staleTime: Infinity,
    gcTime: 10_000,
    retry: false,
    placeholderData: (before, asked) => (asked?.queryKey[1] === row ? before : undefined),
  })
  return data ?? none
}

/** The ways of the selected row's signal, drawn at the right of the board from row to row: outputs fine, sends
    strong, taps and keys dotted; where nothing comes through the line is broken. */
export function LitPath({
  reach,
  rows,
  height,
}: {
  reach: Reach
  rows: Channel[]
  height: (c: Channel) => number
}) {
  const selected = useView((v) => v.channel)
  const place = new Map<string, number>() // where each row ends
  let bottom = 0
  for (const c of rows) place.set(c.id, (bottom += height(c)))
  const edges = reach.edges.filter((e) => place.has(e.from) && place.has(e.to) && e.from !== e.to)
  if (!edges.length) return null
  const y = (id: string, end: number) => place.get(id)! - 14 + end
  // ways to the same row share a lane, so that they are seen to meet
  const lanes = [...new Set(edges.map((e) => e.to))]
  const width = 12 + lanes.length * 9
  const strong = (kind: string) => (kind === 'send' ? 2.2 : kind === 'output' ? 1.1 : 1.4)
  return (
    <svg
      className="pointer-events-none absolute top-0 right-0 z-20"
      width={width}
      height={bottom}
      aria-hidden
      data-testid="lit-path"
    >
      {edges.map((e) => {
        const x = 8 + lanes.indexOf(e.to) * 9
        const [a, b] = [y(e.from, 3), y(e.to, -4)]
        const near = e.from === selected || e.to === selected
        return (
          <g key={e.kind + e.id + e.from} opacity={near ? 1 : 0.5} stroke="var(--deep)" fill="none">
            <path
              d={`M0 ${a} H${x - 4} Q${x} ${a} ${x} ${a + (b > a ? 4 : -4)} V${b + (b > a ? -4 : 4)} Q${x} ${b} ${x - 4} ${b} H3`}
              strokeWidth={strong(e.kind)}
              strokeDasharray={e.dead ? '2 5' : e.kind === 'tap' || e.kind === 'key' ? '1.5 2.5' : undefined}
            />
            <path d={`M5 ${b - 3.5} L0 ${b} L5 ${b + 3.5}Z`} fill="var(--deep)" stroke="none" />
          </g>
        )
      })}
    </svg>
  )
}
