import type { Channel, Fork, Path } from '../api/types'
import { moveRow } from '../board/rows'
import { findFork, findStage, idOf, onward, shownChain, type Way } from '../document/chain'
import { barAt } from '../document/time'
import { select, selectedChannel } from '../session/selected'
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

/** With what is selected in a chain. */
export const node = (run: (id: string) => unknown) => () => void (view().stage && run(view().stage))

/** With the selected stage. */
export const stage = (run: (id: string) => unknown) => () => {
  const p = theProject()
  if (p && findStage(p, view().stage)) run(view().stage)
}

/** With the selected path of a fork; elsewhere something else. */
export const path =
  (run: (f: Fork, p: Path) => unknown, or: () => unknown = () => undefined) =>
  () => {
    const found = findFork(theProject(), view().stage)
    if (found?.path) run(found.fork, found.path)
    else or()
  }

function stepRow(by: number) {
  const list = rows()
  const i = list.findIndex((c) => c.id === view().channel)
  const next = list[Math.min(Math.max(i + by, 0), list.length - 1)]
  if (next) select(next.id)
}

/** Along the chain that is shown; where that leads nowhere, down and up lead to the other rows. */
export const step = (way: Way) => () => {
  const c = selectedChannel()
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

export const shiftRow = (by: number) => () => {
  const i = (theProject()?.channels ?? []).findIndex((c) => c.id === view().channel)
  if (i >= 0) moveRow(view().channel, by > 0 ? i + 2 : i - 1)
}

export const stepBar = (by: number) => () => {
  const t = session().timeline
  const at = theEngine()?.heard()?.song ?? 0
  if (t) locate(t.bars[Math.min(Math.max(barAt(t, at) + by, 0), t.bars.length - 1)]!.frame)
}
