import { answer, api } from '../api/client'
import type { Thing } from '../api/types'
import { snap } from '../clips/actions'
import type { Words } from '../controls/WordsForm'
import { newId } from '../document/ids'
import { change, tryChanges } from '../session/changes'
import { theEngine } from '../session/sound'
import { notice, projectId, refused, theProject } from '../session/store'
import { setView } from '../session/view'
import { trackForIt } from './track'

/* The shelf: what is put on it, taken off it, and put down from it. Go says what comes of it on a row. */

export const list = () => answer(api.GET('/api/shelf'))

/** The changes that put a thing down on a track. */
export const changesFor = (
  thing: string,
  row: string,
  at: number,
  how: { grid?: number; near?: number; next?: number },
) =>
  answer(
    api.GET('/api/projects/{id}/shelf/{thing}', {
      params: { path: { id: projectId(), thing }, query: { row, at: Math.round(at), ...how } },
    }),
  )

export async function keep(clips: string[], words: Words): Promise<Thing> {
  const t = await answer(api.POST('/api/shelf', { body: { project: projectId(), clips, ...words } }))
  notice(`${t.name} is on the shelf.`)
  return t
}

export const rename = (t: Thing, words: Words) =>
  answer(api.PUT('/api/shelf/{thing}', { params: { path: { thing: t.id } }, body: words }))

export const takeOff = (t: Thing) => api.DELETE('/api/shelf/{thing}', { params: { path: { thing: t.id } } })
export const putBack = (t: Thing) =>
  api.POST('/api/shelf/{thing}/restore', { params: { path: { thing: t.id } } })

/** Puts a thing down at the playhead: on the selected track, or on a new one. */
export async function putDown(thing: string): Promise<boolean> {
  const at = theEngine()?.heard()?.song ?? 0
  return drop(thing, trackForIt()?.id ?? '', at, { free: true })
}

/** Puts a thing down on a track at a song frame; without a track on a new one. What has come is selected. */
export async function drop(
  thing: string,
  row: string,
  at: number,
  how: { free: boolean; near?: number },
): Promise<boolean> {
  try {
    const to = row || newId()
    const { label, changes } = await changesFor(thing, to, at, snap(how.free, how.near))
    const before = new Set(clipIds())
    const fresh = row ? [] : [{ type: 'channel.new' as const, do: { id: to, kind: 'track' as const } }]
    if (!(await change(label, ...fresh, ...changes))) return false
    await tryChanges([])
    setView({ channel: to, stage: '', together: [], clips: clipIds().filter((id) => !before.has(id)) })
    return true
  } catch (e) {
    refused(e)
    return false
  }
}

const clipIds = () => (theProject()?.channels ?? []).flatMap((c) => c.clips.map((x) => x.id))
