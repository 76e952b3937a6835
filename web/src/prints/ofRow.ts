import { answer, api } from '../api/client'
import type { Channel, PrintSpec } from '../api/types'
import { printInPlace } from '../clips/permanent'
import { refused, session } from '../session/store'
import { view } from '../session/view'
import type { How } from './InPlace'
import { type Format, spanOf } from './picks'

/** How a row is printed, or exported. */
export type RowPrint = {
  /** 'song', 'range', or the id of a section. */
  range: string
  tail: boolean
  mute: boolean
  place: 'track' | 'here'
  how: How
  format: Format
}

export const first: RowPrint = {
  range: 'song',
  tail: true,
  mute: true,
  place: 'track',
  how: {},
  format: 'wav24',
}

let last = first

/** Prints a track, or exports what is none, and keeps how for the next time. Reports whether it could be asked for. */
export async function printRow(row: Channel, target: 'track' | 'file', by: RowPrint): Promise<boolean> {
  last = by
  const span = spanOf(session().timeline, view().loop, by.range)
  if (target === 'track' && by.place === 'here') {
    void printInPlace(row.clips, by.range === 'song' ? undefined : span, by.how)
    return true
  }
  const body: PrintSpec = {
    channel: row.id,
    ...span,
    tail: by.tail,
    target,
    mute: target === 'track' && by.mute,
    format: target === 'file' ? by.format : undefined,
  }
  try {
    await answer(
      api.POST('/api/projects/{id}/prints', { params: { path: { id: session().project!.id } }, body }),
    )
    return true
  } catch (e) {
    refused(e)
    return false
  }
}

/** Prints a row as one was printed last, without asking. */
export const printAsBefore = (c: Channel) => void printRow(c, c.kind === 'track' ? 'track' : 'file', last)
