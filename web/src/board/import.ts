import { takerAt, upload } from '../api/client'
import { notice, refused, setSession } from '../session/store'

/** Brings sound files in, each as a track of its own. */
export async function importFiles(id: string, files: File[]) {
  for (const f of files) {
    try {
      setSession({ importing: { name: f.name, progress: 0 } })
      await upload(takerAt('/api/projects/{id}/audio', { path: { id }, query: { name: f.name } }), f, (p) =>
        setSession({ importing: { name: f.name, progress: p * 0.5 } }),
      )
      notice(`${f.name} is a track now.`)
    } catch (e) {
      refused(e)
    } finally {
      setSession({ importing: null })
    }
  }
}
