import type { Clip, PlaceSpec } from '../api/types'
import { answer, api, type Waiting } from '../api/client'
import { change, reached } from '../session/changes'
import { notice, projectId, refused, theProject } from '../session/store'
import { setView, view } from '../session/view'
import { work } from '../session/works'
import { takeUnder } from './actions'
import { chosen } from './chosen'

/* Clips for good: what was made of them takes their place, and what it was made from is kept. */

const many = (clips: Clip[]) => (clips.length === 1 ? clips[0]!.name : `${clips.length} clips`)

const asked = (clips: Clip[], w: Waiting) => ({
  params: { path: { id: projectId() } },
  body: { clips: clips.map((c) => c.id) },
  signal: w.signal,
  headers: { 'X-Work': w.work },
})

/** Prints clips with their treatments and lets them play that. */
export async function makePermanent(clips: Clip[]) {
  try {
    const r = await work(`Printing ${many(clips)}`, (w) =>
      answer(api.POST('/api/projects/{id}/clips/permanent', asked(clips, w))),
    )
    await reached(r.revision)
    setView({ stage: '', together: [] })
    notice(`${many(clips)} is permanent now. What it was made from is kept.`, 'info', {
      text: 'Bring it back',
      run: () => void bringBack(clips),
    })
  } catch (e) {
    refused(e)
  }
}

/** Prints what lies in the range that is drawn, where it stands: it is cut there first, in the same change. */
export function printRange() {
  const { piece } = view()
  if (!piece) return
  takeUnder()
  if (!view().clips.length) return notice('There is no clip in the range to print.')
  return printInPlace(chosen(), { from: Math.round(piece.from), to: Math.round(piece.to) })
}

/** Prints the selected clips through their rows' chains and puts that in their place, behind the chain; with a range
    only what lies inside. */
export async function printInPlace(
  clips = chosen(),
  within?: { from: number; to: number },
  how: Pick<PlaceSpec, 'empty' | 'level' | 'slice'> = {},
) {
  if (!clips.length) return
  const before = new Set(all().map((c) => c.id))
  try {
    const r = await work(`Printing ${many(clips)}`, (w) =>
      answer(
        api.POST('/api/projects/{id}/clips/print', {
          ...asked(clips, w),
          body: { clips: clips.map((c) => c.id), within, ...how },
        }),
      ),
    )
    await reached(r.revision)
  } catch (e) {
    return refused(e)
  }
  const prints = all().filter((c) => !before.has(c.id) && c.made)
  // unless somebody has gone elsewhere meanwhile
  if (view().clips.every((id) => clips.some((c) => c.id === id)))
    setView({ clips: prints.map((c) => c.id), stage: '', together: [], piece: null })
  notice(
    `Printed: ${many(prints)}. ${how.empty ? 'The chain is empty now' : 'It comes in behind the chain'}.`,
    'info',
    {
      text: 'One round back',
      run: () => void bringBack(prints),
    },
  )
}

const all = () => (theProject()?.channels ?? []).flatMap((c) => c.clips)

/** Gives clips back what they were made from: one round. */
export const bringBack = (clips: Clip[]) => {
  const made = clips.map((c) => all().find((x) => x.id === c.id)).filter((c) => c?.made)
  return change(
    'Bring back what clips were made from',
    ...made.map((c) => ({ type: 'clip.bring-back' as const, do: { id: c!.id } })),
  )
}

/** Whether whole-sound steps are worked out only when somebody asks: for people with long sounds. */
export const workWhenAsked = (on: boolean) =>
  change(on ? 'Work out only when asked' : 'Work out after each change', {
    type: 'project.set',
    do: { workWhenAsked: on },
  })
