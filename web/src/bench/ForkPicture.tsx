import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { answer, api } from '../api/client'
import type { Fork, ForkFigures, Path } from '../api/types'
import { hearPaths } from '../session/listening'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { HandlePoint, type Pictured } from './HandlePoint'
import { PictureGrid } from './PictureGrid'
import { Spectrum } from './Spectrum'
import { frameOf } from './frame'
import { useForkPicture } from './picture'

const W = 212

/** What a fork does as a whole, by a test signal that Go sends through a copy of it. */
export function useForkFigures(fork: Fork): ForkFigures | null {
  const id = useSession((s) => s.project!.id)
  const key = JSON.stringify(fork)
  const [settled, setSettled] = useState(key)
  useEffect(() => {
    const t = setTimeout(() => setSettled(key), 150)
    return () => clearTimeout(t)
  }, [key])
  const { data } = useQuery({
    queryKey: ['fork', id, settled],
    queryFn: () =>
      answer(api.GET('/api/projects/{id}/forks/{fork}', { params: { path: { id, fork: fork.id } } })),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
  })
  return data ?? null
}

/** The picture of a fork: its sum, each path's part, the live spectrum before and after, and crossovers to
    drag: with Alt the band below one is heard while it is held, with Ctrl the band above. */
export function ForkPicture({
  fork,
  path,
  figures,
  height: H,
}: {
  fork: Fork
  path: Path | null
  figures: ForkFigures | null
  height: number
}) {
  const p = useForkPicture(fork)
  const strip = useSession((s) => s.strip)
  const before = useRef<string[] | null>(null)
  const hearBand = (id: string) => {
    before.current = useView.getState().listening?.paths ?? []
    hearPaths([id])
  }
  const hearAsBefore = () => {
    if (before.current) hearPaths(before.current)
    before.current = null
  }
  if (!p || !strip)
    return <div className="border" style={{ width: W, height: H, borderColor: 'var(--deep)' }} />
  const f = frameOf(p, W, H)
  const of: Pictured = {
    id: fork.id,
    name: fork.name || 'the fork',
    params: fork.linear ? strip.linear : strip.crossovers,
    value: (x) => fork.crossovers[Number(x.name.slice(1)) - 1] ?? x.default,
  }
  const line = (ys: number[]) =>
    f.path(
      figures!.hz,
      ys.map((y) => Math.max(y, p.y.min - 3)),
    )
  return (
    <svg
      width={W}
      height={H}
      viewBox={`0 0 ${W} ${H}`}
      role="group"
      aria-label={p.says}
      style={{ background: 'var(--shoal-1)', border: '1px solid var(--deep)' }}
    >
      <PictureGrid p={p} f={f} w={W} h={H} />
      <Spectrum stage={fork.id} width={W} height={H} />
      {p.curves.map((c, i) => (
        <path
          key={i}
          d={f.path(
            c.x,
            c.y.map((y) => Math.max(y, p.y.min - 3)),
          )}
          fill="none"
          stroke="var(--soft)"
          strokeWidth={1}
          strokeDasharray="2 3"
        />
      ))}
      {figures?.each.map((e) => (
        <path
          key={e.path}
          d={line(e.level)}
          fill="none"
          stroke="var(--deep)"
          strokeWidth={e.path === path?.id ? 2 : 1}
          opacity={e.path === path?.id ? 1 : 0.7}
        />
      ))}
      {figures && <path d={line(figures.sum)} fill="none" stroke="var(--ink)" strokeWidth={2.2} />}
      {figures && figures.cancel > 3 && (
        <line
          x1={f.x(figures.at)}
          x2={f.x(figures.at)}
          y1={0}
          y2={H}
          stroke="var(--caution)"
          strokeDasharray="3 2"
        />
      )}
      {p.handles?.map((h, i) => (
        <HandlePoint
          key={h.label}
          handle={h}
          frame={f}
          of={of}
          onGrab={(e) => {
            if (e && (e.altKey || e.ctrlKey)) hearBand(fork.paths[e.altKey ? i : i + 1]!.id)
          }}
          onLetGo={hearAsBefore}
        />
      ))}
    </svg>
  )
}
