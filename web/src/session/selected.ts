import type { Channel } from '../api/types'
import {
  chained,
  chainsOf,
  findFork,
  findNode,
  pathIn,
  type Place,
  placeIn,
  shownChain,
  stageName,
  treatmentRow,
} from '../document/chain'
import { rowOfOwner } from './outline'
import { session, theProject } from './store'
import { setView, view } from './view'

/* What is selected in this window, and where in the document it stands. */

export const selectedChannel = (): Channel | undefined =>
  theProject()?.channels.find((c) => c.id === view().channel)

export function select(channel: string, stage = '') {
  // what stands in a treatment is selected besides the clips that it is of
  if (theProject()?.treatments?.some((t) => t.id === channel)) return setView({ stage, together: [] })
  setView({ channel, stage, together: [], rows: [], clips: [], piece: null })
}

/** The treatment that all of the selected clips share, in the place of a row. */
export function chosenTreatment(): Channel | undefined {
  const p = theProject()
  const clips = (p?.channels ?? []).flatMap((c) => c.clips.filter((x) => view().clips.includes(x.id)))
  const id = clips[0]?.treatment
  const t = id && clips.every((x) => x.treatment === id) && p?.treatments?.find((x) => x.id === id)
  return t ? treatmentRow(t) : undefined
}

/** Whose chain is on the bench: that of the row, or the treatment of the selected clips. */
export const benchRow = () => chosenTreatment() ?? selectedChannel()

/** Adds a row to those selected together, or takes it out; range takes all between. */
export function selectAlso(id: string, range: boolean) {
  const v = view()
  const shown = (theProject()?.channels ?? []).filter((c) => v.showHidden || !c.hidden).map((c) => c.id)
  const now = v.rows.length ? v.rows : v.channel ? [v.channel] : []
  if (range && v.channel) {
    const [a, b] = [shown.indexOf(v.channel), shown.indexOf(id)].sort((x, y) => x - y) as [number, number]
    setView({ rows: shown.slice(a, b + 1) })
    return
  }
  const rows = now.includes(id) ? now.filter((x) => x !== id) : [...now, id]
  setView({ rows, channel: rows.includes(v.channel) ? v.channel : (rows[0] ?? ''), stage: '', clips: [] })
}

/** The rows that a gesture is for: all that are selected together, in their order. */
export function selectedRows(): Channel[] {
  const v = view()
  const ids = v.rows.length ? v.rows : [v.channel]
  return (theProject()?.channels ?? []).filter((c) => ids.includes(c.id))
}

/** What a row is called. */
export const nameOfRow = (id: string) => theProject()?.channels.find((c) => c.id === id)?.name ?? '?'

/** The row that a chain belongs to, by its owner: a row, a trial or a path. */
export const rowOf = (owner: string): Channel | undefined => {
  const id = rowOfOwner(owner) || owner
  return chained(theProject()).find((c) => c.id === id)
}

/** Which chain that is, by its owner: of a row, a trial of it, or a path. */
export function placeInWords(owner: string): string {
  const row = rowOf(owner)
  if (!row) return 'the chain'
  if (row.id === owner) return row.name
  const trial = row.trials.find((t) => t.id === owner)
  if (trial) return `trial ${trial.letter} of ${row.name}`
  const path = findFork(theProject(), owner)?.path
  return path ? `the path ${path.name} of ${row.name}` : row.name
}

/** Where a stage or fork stands: in which chain, by its owner, and at which place. */
export function placeOf(id: string): Place | null {
  for (const c of chained(theProject())) {
    for (const { owner, chain } of chainsOf(c)) {
      const found = placeIn(owner, chain.nodes, id)
      if (found) return found
    }
  }
  return null
}

/** Where something new goes on a row: behind what is on the bench, at the end of the path that is, or of the chain. */
export function insertAt(c: Channel): { owner: string; index: number } {
  const { owner, chain } = shownChain(c, view().trials)
  const at = placeIn(owner, chain.nodes, view().stage)
  if (at) return { owner: at.owner, index: at.index + 1 }
  const path = pathIn(owner, chain.nodes, view().stage)?.path
  return path ? { owner: path.id, index: path.chain.nodes.length } : { owner, index: chain.nodes.length }
}

/** The chain that is shown of a row, by its owner. */
export const endOf = (c: Channel) => shownChain(c, view().trials).owner

export const nameOf = (id: string) => {
  const found = findNode(theProject(), id)
  if (!found) return 'stage'
  return found.node.stage
    ? stageName(found.node.stage, session().effects)
    : found.node.fork!.name || 'the fork'
}
