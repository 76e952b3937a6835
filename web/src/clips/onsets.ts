import type { Clip } from '../api/types'
import { serialOf } from '../document/patch'
import { session, theProject } from '../session/store'
import { marksOf } from './levels'

/* Where sounds begin in clips, for what snaps to them: Go finds it, when a hand is over the clip for the first time. */

/** Frames from a clip's beginning; empty until they are found. */
const known = new Map<string, number[]>()

function onsetsOf(clip: Clip): number[] {
  const treatment = theProject()?.treatments?.find((t) => t.id === clip.treatment)
  const key = [clip.id, clip.audio, clip.offset, clip.frames, serialOf(treatment)].join(' ')
  const found = known.get(key)
  if (found) return found
  known.set(key, [])
  const start = session().timeline?.clips[clip.id] ?? 0
  marksOf(clip.id, 'onsets', 0).then(
    (m) =>
      known.set(
        key,
        m.marks.filter((x) => x.strength >= m.usual).map((x) => x.at - start),
      ),
    () => known.delete(key), // it is asked for again
  )
  return []
}

/** The song frames at which sounds begin near a place of a row. */
export function onsetsNear(row: string, at: number, near: number): number[] {
  const starts = session().timeline?.clips ?? {}
  const clips = theProject()?.channels.find((c) => c.id === row)?.clips ?? []
  return clips.flatMap((c) => {
    const start = starts[c.id]
    if (start === undefined || at < start - near || at > start + c.frames + near) return []
    return onsetsOf(c)
      .map((f) => f + start)
      .filter((f) => Math.abs(f - at) <= near)
  })
}
