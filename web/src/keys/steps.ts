import type { Channel, Fork, Path, Send } from '../api/types'
import { moveRow } from '../board/rows'
import { findFork, findStage, idOf, onward, shownChain, type Way } from '../document/chain'
import { chosen } from '../clips/chosen'
import { barAt } from '../document/time'
import { benchRow, select, selectAlso, selectedChannel } from '../session/selected'
import { theEngine } from '../session/sound'
import { session, theProject } from '../session/store'
import { locate } from '../session/transport'
import { setView, view } from '../session/view'

/* What keys act upon, and the ways that arrow keys go. */

export const rows = () => (theProject()?.channels ?? []).filter((c) => view().showHidden || !c.hidden)

/** With the selected row, if there is one. */
export const row = (run: (c: Channel) => unknown) => () => {
  const c = selectedChannel()
  if (c) run(c)
}

/** What can be selected; what a key does can depend on it. */
export type Selection = 'nothing' | 'row' | 'stage' | 'fork' | 'path' | 'send' | 'passage' | 'clip' | 'range'

/** What is selected: the most particular of it. */
export function selection(): Selection {
  const p = theProject()
  const { stage: id } = view()
  if (p && id) {
    if (findStage(p, id)) return 'stage'
    const fork = findFork(p, id)
    if (fork) return fork.path ? 'path' : 'fork'
    if (p.passages?.some((x) => x.id === id)) return 'passage'
    if (p.channels.some((c) => c.sends.some((x) => x.id === id))) return 'send'
  }
  if (chosen().length) return 'clip'
  if (view().piece) return 'range'
  return selectedChannel() ? 'row' : 'nothing'
}

/** With the id of what is selected in a chain. */
export const node = (run: (id: string) => unknown) => () => void (view().stage && run(view().stage))

/** With the selected path of a fork. */
export const path = (run: (f: Fork, p: Path) => unknown) => () => {
  const found = findFork(theProject(), view().stage)
  if (found?.path) run(found.fork, found.path)
}

/** With the selected send, and the row that it is on. */
export const send = (run: (s: Send, c: Channel) => unknown) => () => {
  const c = selectedChannel()
  const s = c?.sends.find((x) => x.id === view().stage)
  if (c && s) run(s, c)
}

function stepRow(by: number) {
  const list = rows()
  const i = list.findIndex((c) => c.id === view().channel)
  const next = list[Math.min(Math.max(i + by, 0), list.length - 1)]
  if (next) select(next.id)
}

/** Takes the next row above or below in with those that are selected together. */
export const alsoRow = (by: 1 | -1) => () => {
  const list = rows().map((c) => c.id)
  const chosen = view().rows.length ? view().rows : [view().channel]
  const places = chosen.map((id) => list.indexOf(id))
  const next = list[by > 0 ? Math.max(...places) + 1 : Math.min(...places) - 1]
  if (next && view().channel) selectAlso(next, false)
}

/** Along the chain that is shown; where that leads nowhere, down and up lead to the other rows. */
export const step = (way: Way) => () => {
  const c = benchRow()
  const chain = c && shownChain(c, view().trials).chain
  const by = way === 'right' || way === 'down' ? 1 : -1
  const across = way === 'up' || way === 'down'
  if (chain && view().stage) {
    const to = onward(chain, view().stage, way)
    if (to) return setView({ stage: to, together: [] })
  } else if (chain && !across) {
    const n = by > 0 ? chain.nodes[0] : chain.nodes.at(-1)
    if (n) setView({ stage: idOf(n), together: [] })
  }
  if (across) stepRow(by)
}

/** Opens the air of the selected row, or folds it to a line: three heights. */
export const turnAir = (by: 1 | -1) =>
  row((c) => {
    const all = ['line', undefined, 'open'] as const
    const to = all[all.indexOf(view().airs[c.id]) + by]
    if (to !== undefined || view().airs[c.id])
      setView({ airs: { ...view().airs, [c.id]: to as 'line' | 'open' } })
  })

export const shiftRow = (by: number) => () => {
  const i = (theProject()?.channels ?? []).findIndex((c) => c.id === view().channel)
  if (i >= 0) moveRow(view().channel, by > 0 ? i + 2 : i - 1)
}

export const stepBar = (by: number) => () => {
  const t = session().timeline
  const at = theEngine()?.heard()?.song ?? 0
  if (t) locate(t.bars[Math.min(Math.max(barAt(t, at) + by, 0), t.bars.length - 1)]!.frame)
}
