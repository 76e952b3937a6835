import type { LineView } from '../api/types'
import { theEngine } from '../session/sound'
import { session } from '../session/store'
import { type Chosen, setView, view } from '../session/view'
import { ticksOf } from './actions'
import { pieceFor } from './piece'

/* What keys select of lines. */

/** Selects the point before or behind those that are selected. */
export function selectNext(v: LineView, ticks: number[], by: 1 | -1) {
  const all = v.points.map((p) => p.tick)
  const at =
    by > 0 ? all.indexOf(ticks.at(-1)!) + 1 : (ticks.length ? all.indexOf(ticks[0]!) : all.length) - 1
  const p = v.points[Math.min(Math.max(at, 0), all.length - 1)]!
  setView({ stretch: { owner: v.owner, name: v.name, from: p.frame, to: p.frame, ticks: [p.tick] } })
}

/** Selects what lies in the stretch, or all there is, of every line that is open under the row: as one it is
    moved, copied, taken off. Without a stretch that is at once, so that the next key finds it selected. */
export async function selectAll(v: LineView, row: string) {
  const s = view().stretch
  const mine = s?.owner === v.owner && s.name === v.name && s.to > s.from ? s : null
  const open = (view().lines[row] ?? []).map((key) => {
    const [owner, name] = key.split(' ') as [string, string]
    return { owner, name }
  })
  const from = Math.round(mine?.from ?? 0)
  const to = Math.round(mine?.to ?? session().timeline?.shown ?? 0)
  if (!mine && !v.clip)
    return choose(
      v,
      from,
      to,
      open.map((l) => ({ ...l, ticks: ticksOf(l) })),
    )
  const seen = await Promise.all(
    open.map((l) => theEngine()!.ask('line', { ...l, from, to, steps: 2, clip: pieceFor(l.owner, row)?.id })),
  )
  const ticks = (x: LineView) => x.points.filter((p) => p.frame >= from && p.frame <= to).map((p) => p.tick)
  choose(
    v,
    from,
    to,
    seen.map((x) => ({ owner: x.owner, name: x.name, ticks: ticks(x) })),
  )
}

/** Selects points of several lines, that of the hand first. */
function choose(v: LineView, from: number, to: number, all: Chosen[]) {
  const first = all.find((l) => l.owner === v.owner && l.name === v.name)
  const more = all.filter((l) => l !== first && l.ticks.length > 0)
  setView({ stretch: { owner: v.owner, name: v.name, from, to, ticks: first?.ticks ?? [], more } })
}
