import type { Operation } from 'fast-json-patch'
import type { Project } from '../api/types'
import { setSession } from './store'

/* What somebody else has their hand on: it is marked for a moment where it stands. */

/** How long a mark stands, in ms. */
const MARKED = 4000

const clearing = new Map<string, ReturnType<typeof setTimeout>>()

/** The parameters that a patch changes, as "owner name". */
export function touched(project: Project, patch: Operation[]): string[] {
  return patch.flatMap((op) => {
    const way = op.path.split('/').slice(1)
    let at: unknown = project
    let owner = ''
    for (const step of way) {
      if (typeof at !== 'object' || at === null) break
      const id = (at as { id?: unknown }).id
      if (typeof id === 'string' && at !== project) owner = id
      at = (at as Record<string, unknown>)[step]
    }
    return owner && typeof at === 'number' ? [`${owner} ${way.at(-1)}`] : []
  })
}

/** Marks what somebody has just moved. */
export function mark(who: string, keys: string[]) {
  if (!keys.length) return
  setSession((s) => ({ theirs: { ...s.theirs, ...Object.fromEntries(keys.map((k) => [k, who])) } }))
  for (const k of keys) {
    clearTimeout(clearing.get(k))
    clearing.set(
      k,
      setTimeout(
        () =>
          setSession((s) => ({
            theirs: Object.fromEntries(Object.entries(s.theirs).filter(([x]) => x !== k)),
          })),
        MARKED,
      ),
    )
  }
}

/** Marks a parameter whose last change was refused. */
export function markRefused(key: string) {
  setSession((s) => ({ refusals: [...s.refusals, key] }))
  setTimeout(() => setSession((s) => ({ refusals: s.refusals.filter((x) => x !== key) })), MARKED)
}
