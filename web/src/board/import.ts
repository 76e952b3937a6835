import { takerAt, upload } from '../api/client'
import type { Imported } from '../api/types'
import { minutes } from '../document/time'
import { change, reached } from '../session/changes'
import { notice, refused, setSession, theProject } from '../session/store'
import { setView } from '../session/view'

/** Brings sound files in, each as a track of its own. */
export async function importFiles(id: string, files: File[]) {
  for (const f of files) {
    try {
      setSession({ importing: { name: f.name, progress: 0 } })
      const r = await upload(
        takerAt('/api/projects/{id}/audio', { path: { id }, query: { name: f.name } }),
        f,
        (p) => setSession({ importing: { name: f.name, progress: p * 0.5 } }),
      )
      const done = r as Imported
      await reached(done.revision)
      told(f.name, done)
    } catch (e) {
      refused(e)
    } finally {
      setSession({ importing: null })
    }
  }
}

/** Says what became of a file. One that says where in a song it begins can be put there. */
function told(name: string, r: Imported) {
  const rate = theProject()?.sampleRate ?? 48000
  const row = theProject()?.channels.find((c) => c.id === r.row)
  if (r.landed) {
    const by = Math.abs(r.longer ?? 0) / rate
    const longer = r.longer
      ? ` It is ${by.toFixed(2)} s ${r.longer > 0 ? 'longer' : 'shorter'} than what went out.`
      : ''
    setView({ channel: r.row, clips: [r.landed], stage: '', together: [], piece: null })
    notice(`${name} is back on ${row?.name}, over what was there.${longer}`)
    return
  }
  const at = r.time ?? 0
  const lacks = r.lacks ? ` It is cut short: ${r.lacks.toFixed(1)} s of it are missing.` : ''
  notice(
    `${name} is a track now.${lacks}`,
    'info',
    at > 0
      ? { text: `Put it at ${minutes(at / rate)}, as it says`, run: () => void putAt(r.row, at) }
      : undefined,
  )
}

async function putAt(row: string, at: number) {
  const clip = theProject()?.channels.find((c) => c.id === row)?.clips[0]
  if (clip)
    await change(`Put ${clip.name} where its file says`, { type: 'clip.set', do: { id: clip.id, start: at } })
}
