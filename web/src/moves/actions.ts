import type { Fields, Handle, Mover, Project } from '../api/types'
import { along } from '../document/chain'
import { change } from '../session/changes'

/* What moves a parameter besides a hand and its line: movers, which add around it, and a handle, which gives it
   its base. */

export const moversOf = (p: Project | null, owner: string, name: string): Mover[] =>
  (p?.movers ?? []).filter((m) => m.targets.some((t) => t.owner === owner && t.name === name))

export const handleOf = (p: Project | null, owner: string, name: string): Handle | undefined =>
  (p?.handles ?? []).find((h) => h.targets.some((t) => t.owner === owner && t.name === name))

/** Changes some of what a mover or a handle is: the rest is left as others may have made it meanwhile. */
export const setMover = (m: Mover, what: Fields<'mover.set'>['what'], label: string) =>
  change(label, { type: 'mover.set', do: { id: m.id, what } })

export const setHandle = (h: Handle, what: Fields<'handle.set'>['what'], label: string) =>
  change(label, { type: 'handle.set', do: { id: h.id, what } })

/** How far a mover moves one of its parameters. */
export const setDepth = (m: Mover, owner: string, name: string, depth: number) =>
  change(`Change the depth of ${m.name}`, {
    type: 'mover.set',
    do: { id: m.id, target: { owner, name, depth } },
  })

/** Over which range a handle moves one of its parameters. */
export const setTarget = (h: Handle, target: Handle['targets'][number]) =>
  change(`Change what ${h.name} moves`, { type: 'handle.set', do: { id: h.id, target } })

export const removeMover = (m: Mover) =>
  change(`Remove ${m.name}`, { type: 'mover.remove', do: { id: m.id } })

const moved = new WeakMap<Project, Set<string>>()

/** Whether anything but a hand moves a parameter. Every scale on the screen asks this of every revision, so that all that is moved is
    gathered once for each. */
export function isMoved(p: Project | null, owner: string, name: string): boolean {
  if (!p) return false
  let all = moved.get(p)
  if (!all) {
    const led: { owner: string; name: string }[] = [
      ...p.lines.filter((l) => l.points.length > 0),
      ...(p.movers ?? []).flatMap((m) => m.targets),
      ...(p.handles ?? []).flatMap((h) => h.targets),
    ]
    moved.set(p, (all = new Set(led.map((x) => `${x.owner} ${x.name}`))))
  }
  return all.has(`${owner} ${name}`)
}

export const addMover = (owner: string, name: string, label: string) =>
  change(`Add a mover to ${label}`, { type: 'mover.add', do: { owner, name } })

/** The stage acts on the left, a copy of it on the right, and both are moved against each other. */
export const moveApart = (owner: string, name: string, label: string) =>
  change(`Move left and right of ${label} apart`, { type: 'mover.apart', do: { owner, name } })

export const depthOf = (m: Mover, owner: string, name: string) =>
  m.targets.find((t) => t.owner === owner && t.name === name)?.depth ?? 0

const forkIn = (c: Project['channels'][number], id?: string) =>
  [...along(c.chain.nodes)].some((n) => n.fork && n.fork.id === id)

/** The handles that a row shows: its own and those of its forks. */
export const shownOn = (p: Project | null, c: Project['channels'][number]): Handle[] =>
  (p?.handles ?? []).filter((h) => h.shown && h.home && (h.home === c.id || forkIn(c, h.home)))

/** Hangs a parameter on a handle; without one, on a new one. */
export const hang = (handle: string, owner: string, name: string, label: string) =>
  change(`Hang ${label} on a handle`, { type: 'handle.hang', do: { handle, owner, name } })

export const letGo = (h: Handle, owner: string, name: string) =>
  change(`Let ${h.name} go`, { type: 'handle.let-go', do: { owner, name } })
