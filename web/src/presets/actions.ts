import { answer, api, download, fileAt } from '../api/client'
import type { Change, NewPreset, Preset, PresetFile } from '../api/types'
import { newId } from '../document/ids'
import { change, tryChanges } from '../session/changes'
import { notice, refused, useSession } from '../session/store'

/** Presets: tried in the engine, then made as ordinary changes. Go says which. */

const projectId = () => useSession.getState().project?.id ?? ''

const taken = (preset: string, target: string, rows?: string) =>
  answer(
    api.GET('/api/projects/{id}/presets', {
      params: { path: { id: projectId() }, query: { preset, target, rows } },
    }),
  )

/** Drops a preset in whole as a new return, with sends from rows; gives the return's id. */
export async function asReturn(
  preset: string,
  rows: string[],
  how: { level?: number; apart?: boolean } = {},
): Promise<string> {
  const id = newId()
  const t = await taken(preset, id, '')
  const sends: Change = { type: 'send.rows', do: { to: id, channels: rows, ...how } }
  return (await change(t.label, ...t.changes, sends)) ? id : ''
}

/** Adds a preset to a clip's treatment, or to a chain at a place: what stands there stays. */
export async function drop(preset: string, target: string, index = 0): Promise<boolean> {
  try {
    const t = await answer(
      api.GET('/api/projects/{id}/presets', {
        params: { path: { id: projectId() }, query: { preset, target, index: String(index) } },
      }),
    )
    return await change(t.label, ...t.changes)
  } catch (e) {
    refused(e)
    return false
  }
}

/** Lets a preset be heard where it would go; nothing is changed. */
export async function tryOut(preset: string, target: string) {
  const t = await taken(preset, target)
  await tryChanges(t.changes)
}

export const endTrying = () => tryChanges([])

export async function takeIt(preset: Preset, target: string) {
  const t = await taken(preset.id, target)
  if (preset.unknown.length)
    notice(
      `${preset.name} holds what this program does not know, which is left out: ${preset.unknown.join(', ')}.`,
    )
  const done = await change(t.label, ...t.changes)
  await endTrying()
  return done
}

export async function save(
  words: { name: string; says: string; tags: string[] },
  kind: NewPreset['kind'],
  target: string,
) {
  const p = await answer(api.POST('/api/presets', { body: { project: projectId(), kind, target, ...words } }))
  notice(`Saved as ${p.name}.`)
  return p
}

export const rename = (p: Preset, name: string) =>
  api.PUT('/api/presets/{preset}', {
    params: { path: { preset: p.id } },
    body: { name, says: p.says, tags: p.tags },
  })

export const bin = (p: Preset) => api.DELETE('/api/presets/{preset}', { params: { path: { preset: p.id } } })
export const restore = (p: Preset) =>
  api.POST('/api/presets/{preset}/restore', { params: { path: { preset: p.id } } })

/** Saves presets as a file. */
export const exportAll = (list: Preset[], name: string) =>
  download(fileAt('/api/preset-files', { query: { ids: list.map((p) => p.id).join(','), name } })).catch(
    refused,
  )

export async function importFile(file: File): Promise<boolean> {
  try {
    let parsed: unknown
    try {
      parsed = JSON.parse(await file.text())
    } catch {
      throw new Error(`${file.name} is not a file of presets: it is no JSON.`)
    }
    const list = await answer(api.POST('/api/preset-files', { body: parsed as PresetFile }))
    notice(`${list.length} ${list.length === 1 ? 'preset' : 'presets'} imported.`)
    return true
  } catch (e) {
    refused(e)
    return false
  }
}
