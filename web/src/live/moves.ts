import type { Handle, Mover, Project } from '../api/types'
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

/** Whether anything but a hand moves a parameter. */
export const isMoved = (p: Project | null, owner: string, name: string) =>
  (p?.lines.some((l) => l.owner === owner && l.name === name && l.points.length > 0) ?? false) ||
  !!handleOf(p, owner, name) ||
  moversOf(p, owner, name).length > 0

export const addMover = (owner: string, name: string, label: string) =>
  change(`Add a mover to ${label}`, { type: 'mover.add', do: { owner, name } })

export const depthOf = (m: Mover, owner: string, name: string) =>
  m.targets.find((t) => t.owner === owner && t.name === name)?.depth ?? 0

export const withDepth = (m: Mover, owner: string, name: string, depth: number): Mover => ({
  ...m,
  targets: m.targets.map((t) => (t.owner === owner && t.name === name ? { ...t, depth } : t)),
})

export const putHandle = (h: Handle, label: string) =>
  change(label, { type: 'handle.put', do: { handle: h } })
/** Hangs a parameter on a handle; without one, on a new one. */
export const hang = (handle: string, owner: string, name: string, label: string) =>
  change(`Hang ${label} on a handle`, { type: 'handle.hang', do: { handle, owner, name } })

export const letGo = (h: Handle, owner: string, name: string) =>
  change(`Let ${h.name} go`, { type: 'handle.let-go', do: { owner, name } })
