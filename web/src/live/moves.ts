import type { Handle, Mover, Param, Project } from '../api/types'
import { newId } from './actions'
import { change } from './session'

/* What moves a parameter besides a hand and its line: movers, which add around it, and a handle, which gives it
   its base. */

export const moversOf = (p: Project | null, owner: string, name: string): Mover[] =>
  (p?.movers ?? []).filter((m) => m.targets.some((t) => t.owner === owner && t.name === name))

export const handleOf = (p: Project | null, owner: string, name: string): Handle | undefined =>
  (p?.handles ?? []).find((h) => h.targets.some((t) => t.owner === owner && t.name === name))

export const putMover = (m: Mover, label: string) => change(label, { type: 'mover.put', do: { mover: m } })
export const removeMover = (m: Mover) =>
  change(`Remove ${m.name}`, { type: 'mover.remove', do: { id: m.id } })

/** A mover on a parameter: calm, in time with the song. */
export const addMover = (owner: string, name: string, label: string) =>
  putMover(
    {
      id: newId(),
      name: `Mover of ${label}`,
      shape: 'sine',
      rate: 0.5,
      quarters: 4,
      phase: 0,
      oneWay: false,
      seed: 1,
      targets: [{ owner, name, depth: 0.1 }],
    },
    `Add a mover to ${label}`,
  )

export const depthOf = (m: Mover, owner: string, name: string) =>
  m.targets.find((t) => t.owner === owner && t.name === name)?.depth ?? 0

export const withDepth = (m: Mover, owner: string, name: string, depth: number): Mover => ({
  ...m,
  targets: m.targets.map((t) => (t.owner === owner && t.name === name ? { ...t, depth } : t)),
})

export const putHandle = (h: Handle, label: string) =>
  change(label, { type: 'handle.put', do: { handle: h } })
export const removeHandle = (h: Handle) =>
  change(`Remove ${h.name}`, { type: 'handle.remove', do: { id: h.id } })

/** Hangs a parameter on a handle: as far as it now stands at 0 %, to the end of its range at 100 %. */
export function hang(h: Handle | null, owner: string, param: Param, now: number, label: string) {
  const target = { owner, name: param.name, from: now, to: param.max, bend: 0 }
  const handle = h ?? { id: newId(), name: param.label, value: 0, targets: [] }
  return putHandle({ ...handle, targets: [...handle.targets, target] }, `Hang ${label} on ${handle.name}`)
}

export const unhang = (h: Handle, owner: string, name: string) => {
  const targets = h.targets.filter((t) => t.owner !== owner || t.name !== name)
  return targets.length ? putHandle({ ...h, targets }, `Let ${h.name} go`) : removeHandle(h)
}
