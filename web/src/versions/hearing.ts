import { answer, api, waiting } from '../api/client'
import type { Version } from '../api/types'
import { theEngine } from '../session/sound'
import { projectId, refused, session, setSession } from '../session/store'
import { view } from '../session/view'
import { work } from '../session/works'

/* A version is heard in place of what the project is now, as loud as that: in this window only, and nothing is changed. */

/** How much of the song is measured where no range is drawn, in seconds before and after the playhead. */
const BEFORE = 4
const AFTER = 12

/** Over what a version is matched: the range that is drawn, else what lies around the playhead. */
function span() {
  const { loop } = view()
  if (loop) return { from: Math.round(loop.from), to: Math.round(loop.to) }
  const rate = session().project!.sampleRate
  const song = theEngine()?.heard()?.song ?? 0
  const from = Math.max(0, Math.round(song - BEFORE * rate))
  return { from, to: from + (BEFORE + AFTER) * rate }
}

/** Hears a version; Go turns it up or down to be as loud as the project is now. */
export async function hearVersion(v: Version) {
  const id = projectId()
  const params = { path: { id, version: v.id } }
  try {
    const { gain, document } = await work(`“${v.name}” is measured`, (w) =>
      answer(
        api.POST('/api/projects/{id}/versions/{version}/match', { params, body: span(), ...waiting(w) }),
      ),
    )
    if (projectId() !== id) return
    setSession({ instead: { id: v.id, name: v.name, gain } })
    theEngine()?.document(document, false)
  } catch (e) {
    refused(e)
  }
}

/** Hears the project as it is now again. */
export function hearNow() {
  const { instead, project } = session()
  if (!instead || !project) return
  setSession({ instead: null })
  theEngine()?.document(project, false)
}
