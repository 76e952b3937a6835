import type { CSSProperties, KeyboardEvent } from 'react'

/* What lists that are gone through by arrow keys share. */

/** How the entry looks that Enter would take. */
export const chosenLook = (is: boolean): CSSProperties | undefined =>
  is ? { background: 'var(--shoal-1)', boxShadow: 'inset 3px 0 0 var(--ink)' } : undefined

/** Lets arrow keys go through so many entries, and Enter take one. */
export function listKeys(
  e: KeyboardEvent,
  list: { at: number; of: number; go: (at: number) => void; take: () => void },
) {
  if (e.key === 'ArrowDown') list.go(Math.min(list.at + 1, list.of - 1))
  else if (e.key === 'ArrowUp') list.go(Math.max(list.at - 1, 0))
  else if (e.key === 'Enter') list.take()
  else return
  e.preventDefault()
}
