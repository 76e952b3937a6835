import type { Change, Channel, EffectInfo, Fields, Stage } from '../api/types'
import { findNode, idOf, shownChain } from '../document/chain'
import { newId } from '../document/ids'
import { change } from '../session/changes'
import { nameOf, placeOf, rowOf, select } from '../session/selected'
import { setView, view } from '../session/view'
import { theProject } from '../session/store'

/* Stages: added, exchanged, moved, set and removed; each asks Go for a change and says in words what it was. */

export async function addStage(effect: EffectInfo, owner: string, index: number, off: boolean) {
  const id = newId()
  select(rowOf(owner)?.id ?? owner, id)
  const done = await change(`Add ${effect.name}`, {
    type: 'stage.add',
    do: { id, owner, index, effect: effect.id, off },
  })
  return done ? id : ''
}

export const replaceStage = (id: string, effect: EffectInfo) =>
  change(`Replace ${nameOf(id)} by ${effect.name}`, replacement(id, effect))

/** The change that puts another effect where a stage stands; what the two share stays. */
export const replacement = (id: string, effect: EffectInfo): Change => ({
  type: 'stage.turn',
  do: { id, effect: effect.id },
})

/** Gives a stage the newest sound of its effect. */
export const renewStage = (id: string) =>
  change(`Use the new sound of ${nameOf(id)}`, { type: 'stage.renew', do: { id } })

/** Gives many stages the newest sounds of their effects. */
export const renewStages = (list: Stage[]) =>
  change(
    `Use the new sounds of ${list.length} stages`,
    ...list.map((s): Change => ({ type: 'stage.renew', do: { id: s.id } })),
  )

export async function moveStage(id: string, owner: string, index: number) {
  const from = placeOf(id)
  if (!from) return
  // indices count without the stage itself
  const to = from.owner === owner && from.index < index ? index - 1 : index
  if (from.owner === owner && to === from.index) return
  if (await change(`Move ${nameOf(id)}`, { type: 'node.move', do: { id, owner, index: to } })) {
    const found = findNode(theProject(), id)
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
  const node = findNode(theProject(), id)?.node
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
