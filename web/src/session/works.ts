import type { Waiting } from '../api/client'
import { newId } from '../document/ids'
import { useSession } from './store'

/** Something that is waited for: what, how far it is, and how it is ended. */
export type Work = { id: string; text: string; progress: number; cancel: () => void }

const set = useSession.setState
/** What takes less is not worth a word. */
const PATIENCE = 400

/** Waits for something that takes long, with progress and a way to cancel in sight. */
export async function work<T>(
  text: string,
  run: (w: Waiting) => Promise<T>,
  outer?: AbortSignal,
): Promise<T> {
  const id = newId()
  const end = new AbortController()
  const cancel = () => end.abort()
  outer?.addEventListener('abort', cancel)
  const shown = setTimeout(
    () => set((s) => ({ works: [...s.works, { id, text, progress: 0, cancel }] })),
    PATIENCE,
  )
  try {
    return await run({ signal: end.signal, work: id })
  } finally {
    clearTimeout(shown)
    outer?.removeEventListener('abort', cancel)
    set((s) => ({ works: s.works.filter((w) => w.id !== id) }))
  }
}
