import type { Change, Node } from '../api/types'
import { at, place, round } from '../controls/format'
import { along, chained, effectOf, findNode, findStage, idOf, shownChain } from '../document/chain'
import { change } from '../session/changes'
import { keep } from '../session/clipboard'
import { move } from '../session/hand'
import { insertAt, nameOf, placeOf, rowOf, select, benchRow } from '../session/selected'
import { notice, theProject, useSession } from '../session/store'
import { setView, view } from '../session/view'
import { moveStage, removeStage } from './stages'

/** Several stages at once: selected, moved, copied, bypassed, removed, set together. */

/** The stages and forks that a command is for, in the order of their chain. */
export function chosen(): string[] {
  const v = view()
  const ids = v.together.length ? v.together : v.stage ? [v.stage] : []
  const p = theProject()
  if (!p) return []
  const order = chained(p).flatMap((c) => [...along(shownChain(c, v.trials).chain.nodes)].map(idOf))
  return ids.filter((id) => findNode(p, id)).sort((a, b) => order.indexOf(a) - order.indexOf(b))
}

const count = (n: number) => (n === 1 ? '' : `${n} stages`)

const named = (ids: string[]) => (ids.length === 1 ? nameOf(ids[0]!) : count(ids.length))

/** Adds a stage to those selected, or takes it out of them. */
export function toggle(channel: string, id: string) {
  const v = view()
  const here = benchRow()?.id === channel
  const now = here ? (v.together.length ? v.together : v.stage ? [v.stage] : []) : []
  const next = now.includes(id) ? now.filter((x) => x !== id) : [...now, id]
  setView({
    channel: here ? v.channel : channel,
    stage: next.includes(id) ? id : (next.at(-1) ?? ''),
    together: next.length > 1 ? next : [],
  })
}

/** Selects from the stage on the bench as far as another one. */
export function reach(channel: string, id: string) {
  const v = view()
  if (benchRow()?.id !== channel || !v.stage) return select(channel, id)
  const here = placeOf(v.stage)
  const ids = here?.nodes.map(idOf) ?? []
  const [a, b] = [ids.indexOf(v.stage), ids.indexOf(id)].sort((x, y) => x - y)
  if (a! < 0) return select(channel, id)
  setView({ together: ids.slice(a, b! + 1) })
}

/** Extends the selection along the chain by the keyboard. */
export function extend(by: number) {
  const v = view()
  const ids = placeOf(v.stage)?.nodes.map(idOf)
  if (!ids) return
  const now = v.together.length ? v.together : [v.stage]
  const edge =
    by > 0 ? Math.max(...now.map((x) => ids.indexOf(x))) : Math.min(...now.map((x) => ids.indexOf(x)))
  const next = ids[edge + by]
  if (next) setView({ together: [...now, next] })
}

export async function remove(ids = chosen()) {
  if (ids.length === 0) return
  if (ids.length === 1) return void removeStage(ids[0]!)
  setView({ stage: '', together: [] })
  await change(`Remove ${named(ids)}`, ...ids.map((id): Change => ({ type: 'node.remove', do: { id } })))
}

export async function bypass(ids = chosen()) {
  const p = theProject()
  if (!p || ids.length === 0) return
  const on = ids.some((id) => {
    const n = findNode(p, id)!.node
    return (n.stage ?? n.fork)!.bypass
  })
  await change(
    `${on ? 'Switch on' : 'Bypass'} ${named(ids)}`,
    ...ids.map((id): Change => ({ type: 'node.set', do: { id, bypass: !on } })),
  )
}

/** Moves stages, in their order, to a place in a chain. */
export async function moveTo(ids: string[], owner: string, index: number) {
  if (ids.length === 1) return moveStage(ids[0]!, owner, index)
  // indices count without the stages that move
  const before = ids.filter((id) => {
    const at = placeOf(id)
    return at && at.owner === owner && at.index < index
  }).length
  // they are all taken to the end first, so that each lands behind the one before it
  const changes = ids.map((id): Change => ({ type: 'node.move', do: { id, owner, index: 9999 } }))
  ids.forEach((id, i) => changes.push({ type: 'node.move', do: { id, owner, index: index - before + i } }))
  if (await change(`Move ${named(ids)}`, ...changes)) {
    const row = rowOf(owner)
    if (row) select(row.id, ids[0]!)
    setView({ together: ids })
  }
}

/** Copies stages to a place in a chain. */
export const copyTo = (ids: string[], owner: string, index: number) =>
  change(`Copy ${named(ids)}`, { type: 'nodes.paste', do: { owner, index, nodes: nodesOf(ids) } })

function nodesOf(ids: string[]): Node[] {
  const found: Node[] = []
  for (const id of ids) {
    const at = placeOf(id)
    if (at) found.push(at.nodes[at.index]!)
  }
  return found
}

/** Puts stages on the clipboard as JSON, for this project or another. */
export async function copy(ids = chosen()) {
  if (ids.length === 0) return
  await put(nodesOf(ids), ids.length === 1 ? `${nameOf(ids[0]!)} is` : `${count(ids.length)} are`)
}

export async function copyChain() {
  const c = benchRow()
  if (!c) return
  await put(shownChain(c, view().trials).chain.nodes, `The chain of ${c.name} is`)
}

const put = (nodes: Node[], what: string) =>
  keep({ format: 'shoal chain 1', nodes }, `${what} on the clipboard.`)

/** Pastes stages behind the one selected, or at the end of the row's chain. */
export async function pasteNodes(nodes: Node[]) {
  const c = benchRow()
  if (!c) return notice('Select a row to paste into.')
  const { owner, index } = insertAt(c)
  await change(`Paste into ${c.name}`, { type: 'nodes.paste', do: { owner, index, nodes } })
}

/** Moves a parameter of a send or a row, and with it that of all rows selected together: of sends, those to
    the same return. True when it did. */
function moveRows(owner: string, name: string, value: number, label: string, rest: boolean): boolean {
  const rows = (theProject()?.channels ?? []).filter((c) => view().rows.includes(c.id))
  if (rows.length < 2) return false
  const { moving, strip } = useSession.getState()
  const send = rows.flatMap((c) => c.sends).find((s) => s.id === owner)
  const all: { id: string; now: number }[] = send
    ? rows
        .flatMap((c) => c.sends.filter((s) => s.to === send.to))
        .map((s) => ({ id: s.id, now: name === 'pan' ? s.pan : s.level }))
    : rows.map((c) => ({ id: c.id, now: name === 'pan' ? c.pan : c.fader }))
  const param = name === 'pan' ? strip?.pan : send ? strip?.send : strip?.fader
  const own = all.find((x) => x.id === owner)
  if (!own || !param) return false
  const stands = (x: { id: string; now: number }) => moving[`${x.id} ${name}`] ?? x.now
  const by = place(param, value) - place(param, stands(own))
  for (const x of all)
    move(
      x.id,
      name,
      x.id === owner || !view().keepDifferences
        ? value
        : round(param, at(param, place(param, stands(x)) + by)),
      label,
      rest,
    )
  return true
}

/** Moves a parameter of a stage, and with it that of the others of the same effect that are selected. */
export function moveTogether(stage: string, name: string, value: number, label: string, rest: boolean) {
  if (moveRows(stage, name, value, label, rest)) return
  const p = theProject()
  const { together, keepDifferences } = view()
  const found = p && findStage(p, stage)
  if (!found || !together.includes(stage)) return move(stage, name, value, label, rest)
  const { effects, moving, strip } = useSession.getState()
  const effect = effectOf(found.stage, effects)
  const param = name === 'mix' ? strip?.mix : effect?.params.find((x) => x.name === name)
  const valueOf = (id: string) => {
    const s = findStage(p, id)!.stage
    return moving[`${id} ${name}`] ?? (name === 'mix' ? s.mix : (s.params[name] ?? param!.default))
  }
  if (!param) return move(stage, name, value, label, rest)
  const by = place(param, value) - place(param, valueOf(stage))
  const stepped = param.taper === 'choice' || param.taper === 'switch'
  for (const id of together) {
    const other = findStage(p, id)
    if (!other || other.stage.effect !== found.stage.effect) continue
    const next =
      id === stage || !keepDifferences || stepped
        ? value
        : round(param, at(param, place(param, valueOf(id)) + by))
    move(id, name, next, label, rest)
  }
}
