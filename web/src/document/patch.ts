import { applyPatch, type Operation } from 'fast-json-patch'
import type { Project } from '../api/types'

/** Applies a patch and leaves the old document as it is; what the patch does not touch is shared by both, so
    that it can be seen at once what has changed. */
export function patched<T extends object>(old: T, patch: Operation[]): T {
  const root = { ...old }
  const own = new Set<unknown>([root])
  for (const op of patch) {
    let at: Record<string, unknown> = root as Record<string, unknown>
    for (const part of op.path.split('/').slice(1, -1)) {
      const key = part.replaceAll('~1', '/').replaceAll('~0', '~')
      const next = at[key]
      if (typeof next !== 'object' || next === null) break // a part that the patch itself brings
      if (!own.has(next)) {
        const copy: unknown = Array.isArray(next) ? [...(next as unknown[])] : { ...next }
        own.add(copy)
        at[key] = copy
      }
      at = at[key] as Record<string, unknown>
    }
    applyPatch(root, [op], false, true)
  }
  return root
}

/** Whether nothing but points of lines differs between two revisions, of which the newer was patched from the
    older: then what is drawn of all else, and of all other lines, is still right. */
export function sameButLines(a: Project, b: Project): boolean {
  const keys = Object.keys({ ...a, ...b }) as (keyof Project)[]
  return keys.every((k) => k === 'lines' || a[k] === b[k]) && a.lines.length === b.lines.length
}

const serials = new WeakMap<object, number>()
let serial = 0

/** A number for an object that it keeps for as long as it is the same one; 0 for none. */
export function serialOf(o: object | undefined): number {
  if (!o) return 0
  const known = serials.get(o)
  if (known) return known
  serials.set(o, ++serial)
  return serial
}
