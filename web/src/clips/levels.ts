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

/** The gains with which clips are as loud without their treatment as with it. */
export const untreated = (clips: Clip[]) =>
  answer(
    api.POST('/api/projects/{id}/clips/untreated', {
      params: { path: { id: projectId() } },
      body: { clips: ids(clips) },
    }),
  )

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
