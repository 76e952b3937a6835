import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { answer, api, waiting } from '../api/client'
import type { Contour, PassageView } from '../api/types'
import { useSession } from '../session/store'
import { work } from '../session/works'

const W = 216
const H = 132
const LOW = -66
const marks = [-12, -24, -36, -48, -60]

/** What the level does around a passage: Go renders its rows with it and without, whenever they have
    changed and rested for a moment. */
export function useContour(v: PassageView | null): Contour | null {
  const project = useSession((s) => s.project)!
  const rows = project.channels.filter((c) => v?.passage.rows.includes(c.id))
  const key = JSON.stringify([v?.passage, rows.map((c) => [c.chain, c.clips, c.fader, c.sends])])
  const [settled, setSettled] = useState(key)
  useEffect(() => {
    const t = setTimeout(() => setSettled(key), 300)
    return () => clearTimeout(t)
  }, [key])
  const { data } = useQuery({
    queryKey: ['contour', project.id, settled],
    queryFn: ({ signal }) =>
      work(
        `Listening to what ${v!.passage.name} does…`,
        (w) =>
          answer(
            api.GET('/api/projects/{id}/passages/{passage}', {
              params: { path: { id: project.id, passage: v!.passage.id } },
              ...waiting(w),
            }),
          ),
        signal,
      ),
    enabled: v !== null,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
  })
  return data ?? null
}

type Row = Contour['rows'][number]

/** The level over time, with the passage and, dotted, without. */
export function ContourPicture(p: { v: PassageView; contour: Contour | null; row: Row | null }) {
  const { v, contour, row } = p
  if (!contour || !row)
    return (
      <>
        <div
          className="grid place-items-center border text-small"
          style={{ width: W, height: H, borderColor: 'var(--deep)', background: 'var(--shoal-1)' }}
        >
          <span className="soft">Listening to its rows…</span>
        </div>
        <p className="soft mt-1 h-[26px]" />
      </>
    )
  const x = (frame: number) => ((frame - contour.from) / (contour.to - contour.from)) * W
  const y = (db: number) => ((0 - Math.max(db, LOW)) / (0 - LOW)) * H
  const path = (levels: number[]) =>
    levels
      .map((l, i) => `${i ? 'L' : 'M'}${((i + 0.5) * (W / levels.length)).toFixed(1)} ${y(l).toFixed(1)}`)
      .join('')
  const from = x(v.from)
  const to = x(v.to)
  return (
    <>
      <svg
        width={W}
        height={H}
        viewBox={`0 0 ${W} ${H}`}
        role="img"
        aria-label="Level over time, from two bars before the passage to two bars after"
        style={{ background: 'var(--shoal-1)', border: '1px solid var(--deep)' }}
      >
        <rect x={from} width={to - from} y={0} height={H} fill="var(--shoal-3)" opacity={0.35} />
        {marks.map((m) => (
          <g key={m}>
            <line x1={0} x2={W} y1={y(m)} y2={y(m)} stroke="var(--shoal-3)" strokeWidth={0.8} />
            <text className="figure" x={2} y={y(m) - 2} fontSize={12} fill="var(--soft)">
              {`${m}`.replace('-', '−')}
            </text>
          </g>
        ))}
        <path d={`${path(row.with)}L${W} ${H}L0 ${H}Z`} fill="var(--shoal-3)" opacity={0.5} />
        <path d={path(row.without)} fill="none" stroke="var(--soft)" strokeDasharray="2 3" />
        <path d={path(row.with)} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
        {[from, to].map((at, i) => (
          <line key={i} x1={at} x2={at} y1={0} y2={H} stroke="var(--deep)" />
        ))}
        <text x={W - 4} y={10} textAnchor="end" fontSize={12} fontStyle="italic" fill="var(--soft)">
          level, dB
        </text>
      </svg>
      <p className="soft mt-1 h-[26px] text-small leading-[13px]" data-testid="left">
        {row.says.replace('-', '−')} Dotted: without it.
      </p>
    </>
  )
}
