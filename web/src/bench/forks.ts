import { answer, api, waiting } from '../api/client'
import type { Fork, Path } from '../api/types'
import { findFork } from '../document/chain'
import { newId } from '../document/ids'
import { change } from '../session/changes'
import { hearPaths } from '../session/listening'
import { endOf, nameOf, rowOf, benchRow, select } from '../session/selected'
import { notice, refused, theProject } from '../session/store'
import { setView, view } from '../session/view'
import { forkTitle } from '../session/outline'
import { work } from '../session/works'
import { range } from '../trials/actions'
import { chosen } from './several'

/* Forks: made, divided, levelled and dissolved. What is possible is decided in Go, which refuses in words. */

/** The selected stages become a path beside a dry one that is off; with nothing selected, an empty fork. */
export async function forkSelection() {
  const nodes = chosen()
  const id = newId()
  const row = benchRow()
  if (!row) return notice('Select a row, or the stages that are to be a path.')
  const name = nodes.length === 1 ? nameOf(nodes[0]!) : nodes.length ? `${nodes.length} stages` : row.name
  const done = nodes.length
    ? await change(`Fork around ${name}`, { type: 'fork.make', do: { id, kind: 'copies', nodes } })
    : await insertFork('copies', 0, endOf(row), Infinity, id)
  if (done) select(row.id, id)
}

/** An empty fork of a kind at a place in a chain. */
export async function insertFork(kind: string, bands: number, owner: string, index: number, id = newId()) {
  const row = rowOf(owner)
  const done = await change(`Add a fork to ${row?.name ?? 'the chain'}`, {
    type: 'fork.make',
    do: { id, kind, bands, owner, index: Math.min(index, 9999) },
  })
  if (done && row) {
    select(row.id, id)
    tellMuted(id)
  }
  return done
}

const on = (f: Fork) => {
  const c = findFork(theProject(), f.id)?.channel
  return `${forkTitle(f)}${c ? ` on ${c.name}` : ''}`
}

export const dissolve = async (f: Fork, path: string) => {
  const c = findFork(theProject(), f.id)?.channel
  const left = f.paths.find((p) => p.id === path)
  const done = await change(`Dissolve ${on(f)}${left ? ` into ${left.name}` : ''}`, {
    type: 'fork.dissolve',
    do: { id: f.id, path },
  })
  if (done && c) select(c.id)
}

export const setFork = (f: Fork, what: { slope?: number; linear?: boolean }) =>
  change(`Change how ${on(f)} divides`, { type: 'fork.set', do: { id: f.id, ...what } })

export const setForkNode = (
  f: Fork,
  what: { name?: string; bypass?: boolean; mixLaw?: string },
  label: string,
) => change(`${label} ${on(f)}`, { type: 'node.set', do: { id: f.id, ...what } })

export const setPath = (p: Path, what: { name?: string; mute?: boolean; invert?: boolean }, label: string) =>
  change(`${label} ${p.name}`, { type: 'path.set', do: { id: p.id, ...what } })

/** Says that a path of a new fork, or a new path, is muted, and lets it be heard. */
function tellMuted(id: string) {
  const at = findFork(theProject(), id)
  const p = at?.path ?? at?.fork.paths.find((x) => x.mute)
  if (p?.mute)
    notice(`${p.name} begins muted, so that nothing gets louder.`, 'info', {
      text: 'Hear it',
      run: () => void toggleMute(p),
    })
}

export const toggleMute = (p: Path) => setPath(p, { mute: !p.mute }, p.mute ? 'Unmute' : 'Mute')

/** One path more: an empty one of copies, or a band divided in two. */
export async function morePaths(f: Fork, path: Path | null) {
  const id = newId()
  const band = path ?? f.paths[f.paths.length - 1]!
  const done =
    f.kind === 'bands'
      ? await change(`Divide ${band.name} of ${on(f)}`, {
          type: 'band.divide',
          do: { path: band.id, new: id },
        })
      : await change(`Add a path to ${on(f)}`, { type: 'path.new', do: { fork: f.id, id } })
  if (!done) return
  setView({ stage: id })
  tellMuted(id)
}

export async function duplicatePath(p: Path) {
  const id = newId()
  if (!(await change(`Duplicate ${p.name}`, { type: 'path.duplicate', do: { id: p.id, new: id } }))) return
  setView({ stage: id })
  tellMuted(id)
}

export async function removePath(f: Fork, p: Path) {
  if (await change(`Remove ${p.name} of ${on(f)}`, { type: 'path.remove', do: { id: p.id } }))
    setView({ stage: f.id })
}

export const shiftPath = (f: Fork, p: Path, by: number) =>
  change(`Move ${p.name}`, {
    type: 'path.move',
    do: { id: p.id, index: Math.max(0, Math.min(f.paths.indexOf(p) + by, f.paths.length - 1)) },
  })

/** Every path on a row of its own. */
export async function spread(f: Fork) {
  const group = newId()
  if (
    await change(`Spread the paths of ${on(f)} to rows`, { type: 'fork.spread', do: { fork: f.id, group } })
  )
    select(group)
}

/** Lets Go listen to the loop or the section, and level the paths or the fork's output by that. */
export async function level(f: Fork, what: 'paths' | 'output') {
  const p = theProject()
  if (!p) return
  const { from, to, name } = range()
  const spec = { what, from: Math.round(from), to: Math.round(to) }
  try {
    const r = await work(`Listening to ${on(f)} over ${name}…`, (w) =>
      answer(
        api.POST('/api/projects/{id}/forks/{fork}/level', {
          params: { path: { id: p.id, fork: f.id } },
          body: spec,
          ...waiting(w),
        }),
      ),
    )
    notice(`${r.label}: done.`)
  } catch (e) {
    refused(e)
  }
}

/** Hears only this path, or with others that are heard already; again ends it. */
export function listenToPath(id: string, also: boolean) {
  const now = view().listening?.paths ?? []
  const others = also ? now.filter((x) => x !== id) : []
  hearPaths(now.includes(id) ? others : [...others, id])
}
