import type { Channel, Send } from '../api/types'
import { newId } from '../document/ids'
import { change } from '../session/changes'
import { hearAlone } from '../session/listening'
import { nameOf, select, selectedChannel, selectedRows } from '../session/selected'
import { theProject } from '../session/store'
import { setView, view } from '../session/view'

/* Routing in one gesture each: what they consist of is decided in Go. */

const many = (rows: Channel[]) => (rows.length === 1 ? rows[0]!.name : `${rows.length} rows`)

/** How new sends of several rows stand: at a level in dB, else one that can be heard; from left to right. */
export type Sending = { level?: number; apart?: boolean }

/** A new return with an effect on it, and a send from each of the rows. */
export async function makeReturn(
  rows: Channel[],
  name: string,
  effect: string,
  how: Sending = {},
): Promise<string> {
  const id = newId()
  const done = await change(`Send ${many(rows)} to a new return`, {
    type: 'return.make',
    do: { id, name, effect, channels: rows.map((r) => r.id), ...how },
  })
  return done ? id : ''
}

/** A send from each of the rows to a return that is there. */
export const sendTo = (rows: Channel[], to: Channel, how: Sending = {}) =>
  change(`Send ${many(rows)} to ${to.name}`, {
    type: 'send.rows',
    do: { to: to.id, channels: rows.map((r) => r.id), ...how },
  })

export async function stageToSend(stage: string) {
  const id = newId()
  const name = nameOf(stage)
  if (await change(`Make ${name} a send and a return`, { type: 'stage.to-send', do: { stage, return: id } }))
    select(id, theProject()?.channels.find((c) => c.id === id)?.chain.nodes[0]?.stage?.id)
}

export const sendToStage = (send: Send, of: string) =>
  change(`Bring back ${of}`, { type: 'send.to-stage', do: { send: send.id } })

/** The same send on other rows, at its level or silent. */
export const copySend = (send: string, rows: Channel[], silent: boolean) =>
  change(`Copy a send to ${many(rows)}`, {
    type: 'send.copy',
    do: { send, channels: rows.map((r) => r.id), silent },
  })

export async function makeGroup() {
  const rows = selectedRows().filter((c) => c.kind !== 'main')
  if (!rows.length) return
  const id = newId()
  if (
    await change(`Group ${many(rows)}`, {
      type: 'group.make',
      do: { id, name: '', channels: rows.map((r) => r.id) },
    })
  ) {
    select(id)
    setView({ renaming: id })
  }
}

export const dissolveGroup = (c: Channel) =>
  change(`Dissolve the group ${c.name}`, { type: 'group.dissolve', do: { id: c.id } })

export const openSendOf = (rows: string[]) => setView({ dialog: { kind: 'send', rows } })

export const openSend = () => {
  const rows = selectedRows().filter((c) => c.kind !== 'main')
  if (rows.length) openSendOf(rows.map((r) => r.id))
}

export const openTrace = () => {
  const main = theProject()?.channels.find((c) => c.kind === 'main')
  const [a, b] = selectedRows()
  if (a && main) setView({ dialog: { kind: 'trace', from: a.id, to: (b ?? main).id } })
}

export const hearRowAlone = (part: 'dry' | 'share') => {
  const c = selectedChannel()
  if (c && c.kind !== 'main') hearAlone(c.id, part)
}

export const fold = (id: string) => {
  const { folded } = view()
  setView({ folded: folded.includes(id) ? folded.filter((x) => x !== id) : [...folded, id] })
}
