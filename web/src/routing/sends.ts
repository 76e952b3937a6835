import type { Channel, Fields, Send } from '../api/types'
import { change } from '../session/changes'
import { nameOfRow, select } from '../session/selected'

/* A send: set, muted and removed. */

export const inWords = (s: Send, c: Channel) => `the send from ${c.name} to ${nameOfRow(s.to)}`

export const set = (s: Send, c: Channel, what: Omit<Fields<'send.set'>, 'id'>, label: string) =>
  change(`${label} ${inWords(s, c)}`, { type: 'send.set', do: { id: s.id, ...what } })

export const toggleMute = (s: Send, c: Channel) => set(s, c, { mute: !s.mute }, s.mute ? 'Unmute' : 'Mute')

export function remove(s: Send, c: Channel) {
  select(c.id)
  return change(`Remove ${inWords(s, c)}`, { type: 'send.remove', do: { id: s.id } })
}
