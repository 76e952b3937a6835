import type { Fork, Outline } from '../api/types'
import { session, useSession } from './store'

/* What Go says of the document's parts: it comes a moment after each revision. */

export const outline = (): Outline | undefined => session().timeline?.outline

export const useOutline = <T>(of: (o: Outline | undefined) => T): T =>
  useSession((s) => of(s.timeline?.outline))

/** What a fork is called; one that has only just come is a fork. */
export const forkTitle = (f: Fork) => outline()?.forks[f.id]?.title ?? (f.name || 'Fork')

/** The same for what is drawn, with what it does. */
export const useForkWords = (f: Fork) =>
  useOutline((o) => o?.forks[f.id]) ?? { title: f.name || 'Fork', kind: '' }

/** The row that an owner of parameters belongs to. */
export const rowOfOwner = (owner: string): string => outline()?.rows[owner] ?? ''

/** The same once it is said: right after a change, or at the very beginning, that takes a moment. */
export const rowSoon = (owner: string): Promise<string> =>
  new Promise((resolve) => {
    const end = () => {
      clearTimeout(late)
      stop()
      resolve(rowOfOwner(owner))
    }
    const stop = useSession.subscribe(() => rowOfOwner(owner) && end())
    const late = setTimeout(end, 5000)
    if (rowOfOwner(owner)) end()
  })
