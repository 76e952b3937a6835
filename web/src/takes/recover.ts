import { answer, api } from '../api/client'
import type { Run } from '../api/types'
import { lockOf } from '../engine/recorder'
import { Over, type Part, patiently, sendPart } from '../engine/tapes'
import { TapeStore } from '../engine/tapeStore'
import { notice } from '../session/store'

/* What was recorded in this browser and has not reached the server: it is sent when there is a window again. */

/** Sends what is left of recordings that nobody looks after any more, or of one. */
export async function recover(only = '') {
  const store = new TapeStore()
  const parts = await store.all().catch(() => [])
  const ids = new Set(parts.map((p) => p.recording).filter((id) => !only || id === only))
  for (const id of ids) {
    await navigator.locks.request(lockOf(id), { ifAvailable: true }, async (lock) => {
      if (!lock) return // another window records it just now
      try {
        await bringIn(parts.filter((p) => p.recording === id))
        for (const p of parts) if (p.recording === id) await store.drop(p)
        notice('What was recorded here before the window was closed has been brought in.')
      } catch (e) {
        notice(
          `Something that was recorded here waits in this browser: ${e instanceof Error ? e.message : String(e)}`,
          'refused',
        )
      }
    })
  }
}

async function bringIn(parts: Part[]) {
  const id = parts[0]!.recording
  try {
    for (const p of parts) await patiently(sendPart, p)
    await end(id)
  } catch (e) {
    if (!(e instanceof Over)) throw e
    await anew(parts)
  }
}

const end = (recording: string) =>
  answer(
    api.POST('/api/recordings/{recording}/end', { params: { path: { recording } }, body: { late: true } }),
  )

/** What came too late becomes a recording of its own. */
async function anew(parts: Part[]) {
  const rows = [...new Set(parts.map((p) => p.row))]
  const { id } = await answer(
    api.POST('/api/projects/{id}/recordings', {
      params: { path: { id: parts[0]!.project } },
      body: { rows: rows.map((id) => ({ id })) },
    }),
  )
  for (const row of rows) {
    const own = parts.filter((p) => p.row === row).sort((a, b) => a.at - b.at)
    const from = own[0]!.at
    for (const p of own)
      await patiently(sendPart, { ...p, recording: id, at: p.at - from, runs: runsFrom(p.runs, from) })
  }
  await end(id)
}

/** The runs of an input as they are when it begins at a later frame. */
export function runsFrom(runs: Run[], from: number): Run[] {
  return runs.flatMap((r) => {
    const late = Math.max(0, from - r.input)
    return late < r.frames
      ? [{ input: r.input + late - from, song: r.song + late, frames: r.frames - late }]
      : []
  })
}
