import type { Message, Presence } from '../api/types'
import { useView, view } from './view'

/* Who else is in the project, and at which row; and what this window says of itself. */

/** The people that a message leaves: all, or those before with who came, moved and left. */
export function peopleAfter(before: Presence[], m: Message): Presence[] {
  if (m.presence) return m.presence
  const came = m.came ?? []
  const gone = new Set([...(m.left ?? []), ...came.map((p) => p.window)])
  return [...before.filter((p) => !gone.has(p.window)), ...came]
}

/** How often a window says where it is at most, in ms. */
const EVERY = 200

/** Says at which row this window is, now and whenever that changes; ends what it gives back. */
export function sayWhere(send: (text: string) => void): () => void {
  let said = ''
  let waiting: ReturnType<typeof setTimeout> | undefined
  const say = () => {
    waiting = undefined
    const at = view().channel
    if (at === said) return
    said = at
    send(JSON.stringify({ at }))
  }
  say()
  const end = useView.subscribe((v) => {
    if (v.channel !== said) waiting ??= setTimeout(say, EVERY)
  })
  return () => {
    clearTimeout(waiting)
    end()
  }
}
