import { answer, api, waiting } from '../api/client'
import type { Version } from '../api/types'
import { theEngine } from '../session/sound'
import { projectId, refused, session, setSession } from '../session/store'
import { view } from '../session/view'
import { work } from '../session/works'

/* A version is heard in place of what the project is now, as loud as that: in this window only, and nothing is changed. */

/** Over what a version is matched: the range that is drawn, else what lies around the playhead, as Go says. */
function span() {
  const { loop } = view()
  return {
    from: Math.round(loop?.from ?? 0),
    to: Math.round(loop?.to ?? 0),
    at: Math.max(0, Math.round(theEngine()?.heard()?.song ?? 0)),
  }
}

/** Hears a version; Go turns it up or down to be as loud as the project is now. */
export async function hearVersion(v: Version) {
  const id = projectId()
  const params = { path: { id, version: v.id } }
  try {
    const { gain, document, worked } = await work(`“${v.name}” is measured`, (w) =>
      answer(
        api.POST('/api/projects/{id}/versions/{version}/match', { params, body: span(), ...waiting(w) }),
      ),
    )
    if (projectId() !== id) return
    setSession({ instead: { id: v.id, name: v.name, gain } })
    if (worked.length) theEngine()?.worked(worked) // its clips may be treated otherwise than now
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
