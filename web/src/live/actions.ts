import type { Change, Channel, EffectInfo, Fields } from '../api/types'
import { findFork, findNode, holds, idOf, pathIn, type Place, placeIn } from './chain'
import { chainsOf, change, notice, refused, shownChain, stageName, theEngine, useSession } from './session'
import { hear } from './listening'
import { finishAll } from './takedown'
import { type Range, setView, view } from './view'

/** What a person can do; each asks Go for a change and says in words what it was. */

const session = useSession.getState
const project = () => session().project

export const selectedChannel = (): Channel | undefined =>
  project()?.channels.find((c) => c.id === view().channel)

export function select(channel: string, stage = '') {
  setView({ channel, stage, together: [], rows: [] })
}

/** Adds a row to those selected together, or takes it out; range takes all between. */
export function selectAlso(id: string, range: boolean) {
  const v = view()
  const shown = (project()?.channels ?? []).filter((c) => v.showHidden || !c.hidden).map((c) => c.id)
  const now = v.rows.length ? v.rows : v.channel ? [v.channel] : []
  if (range && v.channel) {
    const [a, b] = [shown.indexOf(v.channel), shown.indexOf(id)].sort((x, y) => x - y) as [number, number]
    setView({ rows: shown.slice(a, b + 1) })
    return
  }
  const rows = now.includes(id) ? now.filter((x) => x !== id) : [...now, id]
  setView({ rows, channel: rows.includes(v.channel) ? v.channel : (rows[0] ?? ''), stage: '' })
}

/** The rows that a gesture is for: all that are selected together, in their order. */
export function selectedRows(): Channel[] {
  const v = view()
  const ids = v.rows.length ? v.rows : [v.channel]
  return (project()?.channels ?? []).filter((c) => ids.includes(c.id))
}

/** The row that a chain belongs to, by its owner: a row, a trial or a path. */
export const rowOf = (owner: string): Channel | undefined =>
  project()?.channels.find((c) => chainsOf(c).some((x) => x.owner === owner || holds(x.chain.nodes, owner)))

/** Which chain that is, by its owner: of a row, a trial of it, or a path. */
export function placeInWords(owner: string): string {
  const row = rowOf(owner)
  if (!row) return 'the chain'
  if (row.id === owner) return row.name
  const trial = row.trials.find((t) => t.id === owner)
  if (trial) return `trial ${trial.letter} of ${row.name}`
  const path = findFork(project(), owner)?.path
  return path ? `the path ${path.name} of ${row.name}` : row.name
}

export async function togglePlay() {
  const engine = theEngine()
  const p = project()
  if (!engine || !p) return
  if (view().playing) {
    finishAll()
    engine.stop()
    return
  }
  try {
    await engine.play(p.sampleRate)
  } catch (e) {
    refused(e)
  }
}

/** Sets the playhead, on a grid in ticks if one is given. */
export const locate = (frame: number, grid = 0) => theEngine()?.locate(frame, grid)

export function setLoop(loop: Range | null, looping = loop !== null) {
  setView({ loop, looping })
  theEngine()?.loop(looping && loop ? loop.from : 0, looping && loop ? loop.to : 0)
}

/** Ends the loop; or begins that of the range which is drawn, or of the section at the playhead. */
export function toggleLoop() {
  const { loop, looping } = view()
  const whole = session().timeline?.sections.some((s) => s.from === loop?.from && s.to === loop.to)
  if (looping && loop) setLoop(whole ? null : loop, false)
  else if (loop && !whole) setLoop(loop)
  else loopSection()
}

/** Whether the song stops at its end, or goes on. */
export function stopAtEnd(stopsAtEnd: boolean) {
  setView({ stopsAtEnd })
  theEngine()?.atEnd(stopsAtEnd)
}

/** Brings down the row for which the output is muted. */
export function turnDown() {
  const trip = session().trip
  const row = project()?.channels.find((c) => c.id === trip?.row)
  if (trip && row)
    void change(`Turn down ${row.name}`, {
      type: 'param.set',
      do: { owner: row.id, name: 'fader', value: trip.fader },
    })
}

export function toggleSolo(id: string, only: boolean) {
  const now = view().solo
  let solo = now.includes(id) ? now.filter((x) => x !== id) : [...now, id]
  if (only) solo = now.length === 1 && now[0] === id ? [] : [id]
  hear({ solo, dry: '', share: '' })
}

/** Where a stage or fork stands: in which chain, by its owner, and at which place. */
export function placeOf(id: string): Place | null {
  for (const c of project()?.channels ?? []) {
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
  const found = findNode(project(), id)
  if (!found) return 'stage'
  return found.node.stage
    ? stageName(found.node.stage, session().effects)
    : found.node.fork!.name || 'the fork'
}

/** A fresh id, like Go's: what is added can be named before it has arrived. */
export function newId(): string {
  const letters = 'abcdefghijkmnpqrstuvwxyz23456789'
  return Array.from(crypto.getRandomValues(new Uint8Array(10)), (b) => letters[b % 32]).join('')
}

export async function addStage(effect: EffectInfo, owner: string, index: number, off: boolean) {
  const id = newId()
  select(rowOf(owner)?.id ?? owner, id)
  await change(`Add ${effect.name}`, { type: 'stage.add', do: { id, owner, index, effect: effect.id, off } })
}

export async function replaceStage(id: string, effect: EffectInfo) {
  await change(`Replace ${nameOf(id)} by ${effect.name}`, replacement(id, effect))
}

/** The change that puts another effect where a stage stands; what the two share stays. */
export const replacement = (id: string, effect: EffectInfo): Change => ({
  type: 'stage.turn',
  do: { id, effect: effect.id },
})

/** Gives a stage the newest sound of its effect. */
export const renewStage = (id: string) =>
  change(`Use the new sound of ${nameOf(id)}`, { type: 'stage.renew', do: { id } })

export async function moveStage(id: string, owner: string, index: number) {
  const from = placeOf(id)
  if (!from) return
  // indices count without the stage itself
  const to = from.owner === owner && from.index < index ? index - 1 : index
  if (from.owner === owner && to === from.index) return
  if (await change(`Move ${nameOf(id)}`, { type: 'node.move', do: { id, owner, index: to } })) {
    const found = findNode(project(), id)
    if (found) select(found.channel.id, id)
  }
}

export const shiftStage = (id: string, by: number) => {
  const at = placeOf(id)
  if (at) void moveStage(id, at.owner, Math.max(0, at.index + (by > 0 ? 2 : -1)))
}

export const setStage = (id: string, what: Omit<Fields<'node.set'>, 'id'>, label: string) =>
  change(`${label} ${nameOf(id)}`, { type: 'node.set', do: { id, ...what } })

export function toggleBypass(id: string) {
  const node = findNode(project(), id)?.node
  const off = (node?.stage ?? node?.fork)?.bypass
  if (node) void setStage(id, { bypass: !off }, off ? 'Switch on' : 'Bypass')
}

export function toggleChain(c: Channel) {
  const { owner, chain } = shownChain(c, view().trials)
  return change(`${chain.bypass ? 'Switch on' : 'Bypass'} the chain of ${c.name}`, {
    type: 'chain.set',
    do: { owner, bypass: !chain.bypass },
  })
}

export async function removeStage(id: string) {
  const at = placeOf(id)
  if (!at) return
  const next = at.nodes[at.index + 1] ?? at.nodes[at.index - 1]
  setView({ stage: next ? idOf(next) : (at.around?.path.id ?? '') })
  if (!(await change(`Remove ${nameOf(id)}`, { type: 'node.remove', do: { id } }))) setView({ stage: id })
}

export function duplicateStage(id: string) {
  const at = placeOf(id)
  if (!at) return
  const node = at.nodes[at.index]!
  return change(
    `Duplicate ${nameOf(id)}`,
    node.stage
      ? { type: 'stage.duplicate', do: { id } }
      : { type: 'nodes.paste', do: { owner: at.owner, index: at.index + 1, nodes: [node] } },
  )
}

export async function addRow(kind: 'track' | 'return') {
  const id = newId()
  select(id)
  setView({ renaming: id })
  await change(`Add ${kind}`, { type: 'channel.new', do: { id, kind } })
}

export const setRow = (c: Channel, what: Omit<Fields<'channel.set'>, 'id'>, label: string) =>
  change(`${label} ${c.name}`, { type: 'channel.set', do: { id: c.id, ...what } })

export const toggleMute = (c: Channel) => setRow(c, { mute: !c.mute }, c.mute ? 'Unmute' : 'Mute')
export const duplicateRow = (c: Channel) =>
  change(`Duplicate ${c.name}`, { type: 'channel.duplicate', do: { id: c.id } })
export const removeRow = (c: Channel) =>
  change(`Remove ${c.name}`, { type: 'channel.remove', do: { id: c.id } })

export function moveRow(id: string, index: number) {
  const rows = project()?.channels ?? []
  const from = rows.findIndex((c) => c.id === id)
  const to = from < index ? index - 1 : index
  if (from < 0 || to === from || to < 0 || to >= rows.length) return
  void change(`Move ${rows[from]!.name}`, { type: 'channel.move', do: { id, index: to } })
}

export function loopSection(id?: string) {
  const t = session().timeline
  if (!t) return
  const at = theEngine()?.heard()?.song ?? 0
  const s = t.sections.find((x) => (id ? x.id === id : x.from <= at && at < x.to))
  if (!s) {
    notice('There is no section here to loop. Drag along the ruler to set a range.')
    return
  }
  setLoop({ from: s.from, to: s.to, name: s.name })
  if (at < s.from || at >= s.to) locate(s.from)
}
