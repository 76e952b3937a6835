import { answer, api } from '../api/client'
import type { Clip, NormaliseSpec } from '../api/types'
import { projectId, refused } from '../session/store'

/* The levels of clips by themselves, which Go measures. */

const ids = (clips: Clip[]) => clips.map((c) => c.id)

export const measure = (clips: Clip[]) =>
  answer(
    api.POST('/api/projects/{id}/clips/levels', {
      params: { path: { id: projectId() } },
      body: { clips: ids(clips) },
    }),
  )

/** The gains with which clips are as loud without their treatment as with it, by the loudness that Go measures. */
export async function untreated(clips: Clip[]) {
  const [withIt, without] = await Promise.all([
    measure(clips),
    answer(
      api.POST('/api/projects/{id}/clips/levels', {
        params: { path: { id: projectId() } },
        body: { clips: ids(clips), without: true },
      }),
    ),
  ])
  return clips.flatMap((c, i) => {
    const [a, b] = [withIt[i]!, without[i]!]
    // what is too short for a loudness has a mean level
    const by = a.integrated > -70 && b.integrated > -70 ? a.integrated - b.integrated : a.rms - b.rms
    return Number.isFinite(by) ? [{ id: c.id, gain: Math.min(36, Math.max(-120, c.gain + by)) }] : []
  })
}

/** Places at which a clip could be cut, in song frames. */
export const marksOf = (clip: string, by: 'onsets' | 'grid' | 'sections', grid: number) =>
  answer(
    api.POST('/api/projects/{id}/clips/marks', {
      params: { path: { id: projectId() } },
      body: { clip, by, grid },
    }),
  )

/** Brings clips to a level by their gain. */
export async function normalise(clips: Clip[], how: Omit<NormaliseSpec, 'clips'>) {
  try {
    await answer(
      api.POST('/api/projects/{id}/clips/normalise', {
        params: { path: { id: projectId() } },
        body: { clips: ids(clips), ...how },
      }),
    )
  } catch (e) {
    refused(e)
  }
}
