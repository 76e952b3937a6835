import type { Clip } from '../api/types'
import { answer, api } from '../api/client'
import { change } from '../session/changes'
import { notice, projectId, refused } from '../session/store'
import { setView } from '../session/view'
import { work } from '../session/works'

/* Treatments for good: what was made of a clip takes its place, and what it was made from is kept. */

/** Prints clips with their treatments and lets them play that. */
export async function makePermanent(clips: Clip[]) {
  const name = clips.length === 1 ? clips[0]!.name : `${clips.length} clips`
  try {
    await work(`Printing ${name}`, (w) =>
      answer(
        api.POST('/api/projects/{id}/clips/permanent', {
          params: { path: { id: projectId() } },
          body: { clips: clips.map((c) => c.id) },
          signal: w.signal,
          headers: { 'X-Work': w.work },
        }),
      ),
    )
    setView({ stage: '', together: [] })
    notice(`${name} is permanent now. What it was made from is kept.`, 'info', {
      text: 'Bring it back',
      run: () => void bringBack(clips),
    })
  } catch (e) {
    refused(e)
  }
}

/** Gives clips back what they were before their treatments were made permanent. */
export const bringBack = (clips: Clip[]) =>
  change(
    'Bring back what clips were made from',
    ...clips.map((c) => ({ type: 'clip.bring-back' as const, do: { id: c.id } })),
  )

/** Whether whole-sound steps are worked out only when somebody asks: for people with long sounds. */
export const workWhenAsked = (on: boolean) =>
  change(on ? 'Work out only when asked' : 'Work out after each change', {
    type: 'project.set',
    do: { workWhenAsked: on },
  })
