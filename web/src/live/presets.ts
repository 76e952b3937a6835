import { get, post, put, remove } from '../api/client'
import type { Change, Preset, Taken } from '../api/types'
import { newId } from './actions'
import { change, notice, refused, tryChanges, useSession } from './session'

/** Presets: tried in the engine, then made as ordinary changes. Go says which. */

const projectId = () => useSession.getState().project?.id ?? ''

const taken = (preset: string, target: string) =>
  get<Taken>(
    `/api/projects/${projectId()}/presets?preset=${encodeURIComponent(preset)}&target=${encodeURIComponent(target)}`,
  )

/** Drops a preset in whole as a new return, with sends from rows; gives the return's id. */
export async function asReturn(preset: string, rows: string[]): Promise<string> {
  const id = newId()
  const t = await get<Taken>(
    `/api/projects/${projectId()}/presets?preset=${encodeURIComponent(preset)}&target=${id}&rows=${rows.join(',')}`,
  )
  return (await change(t.label, ...(t.changes as Change[]))) ? id : ''
}

/** Lets a preset be heard where it would go; nothing is changed. */
export async function tryOut(preset: string, target: string) {
  const t = await taken(preset, target)
  await tryChanges(t.changes as Change[])
}

export const endTrying = () => tryChanges([])

export async function takeIt(preset: Preset, target: string) {
  const t = await taken(preset.id, target)
  if (preset.unknown.length)
    notice(
      `${preset.name} holds what this program does not know, which is left out: ${preset.unknown.join(', ')}.`,
    )
  const done = await change(t.label, ...(t.changes as Change[]))
  await endTrying()
  return done
}

export async function save(
  words: { name: string; says: string; tags: string[] },
  kind: string,
  target: string,
) {
  const p = await post<Preset>('/api/presets', { project: projectId(), kind, target, ...words })
  notice(`Saved as ${p.name}.`)
  return p
}

export const rename = (p: Preset, name: string) =>
  put<Preset>(`/api/presets/${p.id}`, { name, says: p.says, tags: p.tags })

export const bin = (p: Preset) => remove(`/api/presets/${p.id}`)
export const restore = (p: Preset) => post(`/api/presets/${p.id}/restore`)

/** Saves presets as a file. */
export function exportAll(list: Preset[], name: string) {
  const file = new Blob([JSON.stringify({ version: 1, presets: list }, null, 1)], {
    type: 'application/json',
  })
  const a = document.createElement('a')
  a.href = URL.createObjectURL(file)
  a.download = `${name}.json`
  a.click()
  URL.revokeObjectURL(a.href)
}

export async function importFile(file: File): Promise<boolean> {
  try {
    let parsed: unknown
    try {
      parsed = JSON.parse(await file.text())
    } catch {
      throw new Error(`${file.name} is not a file of presets: it is no JSON.`)
    }
    const list = await post<Preset[]>('/api/preset-files', parsed)
    notice(`${list.length} ${list.length === 1 ? 'preset' : 'presets'} imported.`)
    return true
  } catch (e) {
    refused(e)
    return false
  }
}
