import type { LineView } from '../api/types'
import { theEngine } from '../session/sound'
import { session } from '../session/store'
import { setView, view } from '../session/view'
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
    moved, copied, taken off. */
export async function selectAll(v: LineView, row: string) {
  const s = view().stretch
  const mine = s?.owner === v.owner && s.name === v.name && s.to > s.from ? s : null
  if (!mine && !v.clip) return chooseAll(v, row)
  const from = mine?.from ?? 0
  const to = mine?.to ?? session().timeline?.shown ?? 0
  const seen = await Promise.all(
    (view().lines[row] ?? []).map((key) => {
      const [owner, name] = key.split(' ') as [string, string]
      return theEngine()!.ask('line', {
        owner,
        name,
        from: Math.round(from),
        to: Math.round(to),
        steps: 2,
        clip: pieceFor(owner, row)?.id,
      })
    }),
  )
  const ticks = (x: LineView) => x.points.filter((p) => p.frame >= from && p.frame <= to).map((p) => p.tick)
  const all = seen.map((x) => ({ owner: x.owner, name: x.name, ticks: ticks(x) }))
  const first = all.find((l) => l.owner === v.owner && l.name === v.name)
  const more = all.filter((l) => l !== first && l.ticks.length > 0)
  setView({ stretch: { owner: v.owner, name: v.name, from, to, ticks: first?.ticks ?? [], more } })
}

/** Selects every point of every line that is open under the row; at once, so that the next key finds them selected. */
function chooseAll(v: LineView, row: string) {
  const all = (view().lines[row] ?? []).map((key) => {
    const [owner, name] = key.split(' ') as [string, string]
    return { owner, name, ticks: ticksOf({ owner, name }) }
  })
  const first = all.find((l) => l.owner === v.owner && l.name === v.name)
  const more = all.filter((l) => l !== first && l.ticks.length > 0)
  const to = session().timeline?.shown ?? 0
  setView({ stretch: { owner: v.owner, name: v.name, from: 0, to, ticks: first?.ticks ?? [], more } })
}
