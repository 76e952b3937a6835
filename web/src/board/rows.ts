import type { Channel, Fields } from '../api/types'
import { newId } from '../document/ids'
import { change } from '../session/changes'
import { select } from '../session/selected'
import { session, theProject } from '../session/store'
import { setView } from '../session/view'

/* Rows: added, set, moved and removed. */

/** Brings down the row for which the output is muted. */
export function turnDown() {
  const trip = session().trip
  const row = theProject()?.channels.find((c) => c.id === trip?.row)
  if (trip && row)
    void change(`Turn down ${row.name}`, {
      type: 'param.set',
      do: { owner: row.id, name: 'fader', value: trip.fader },
    })
}

export async function addRow(kind: 'track' | 'return') {
  const id = newId()
  select(id)
  setView({ renaming: id })
  await change(`Add ${kind}`, { type: 'channel.new', do: { id, kind } })
}

export const setRow = (c: Channel, what: Omit<Fields<'channel.set'>, 'id'>, label: string) =>
  change(`${label} ${c.name}`, { type: 'channel.set', do: { id: c.id, ...what } })

export const toggleMute = (c: Channel) => setRow(c, { mute: !c.mute }, c.mute ? 'Unmute' : 'Mute')
export const duplicateRow = (c: Channel) =>
  change(`Duplicate ${c.name}`, { type: 'channel.duplicate', do: { id: c.id } })

export const removeRow = (c: Channel) =>
  change(`Remove ${c.name}`, { type: 'channel.remove', do: { id: c.id } })

export function moveRow(id: string, index: number) {
  const rows = theProject()?.channels ?? []
  const from = rows.findIndex((c) => c.id === id)
  const to = from < index ? index - 1 : index
  if (from < 0 || to === from || to < 0 || to >= rows.length) return
  void change(`Move ${rows[from]!.name}`, { type: 'channel.move', do: { id, index: to } })
}

/** Takes a row in hand for some minutes, or (0) lets go of it: others are asked before they change it. */
export const takeInHand = (c: Channel, minutes: number) =>
  change(minutes ? `Take ${c.name} in hand` : `Let go of ${c.name}`, {
    type: 'row.hand',
    do: { id: c.id, minutes },
  })
