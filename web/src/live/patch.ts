import { applyPatch, type Operation } from 'fast-json-patch'

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
