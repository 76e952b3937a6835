import type { Channel, Clip, Project, Take } from '../api/types'
import { change } from '../session/changes'
import { theProject, useSession } from '../session/store'
import { setLoop } from '../session/transport'
import { setView, view } from '../session/view'

/* Takes: all that was recorded of a place, of which one sounds. */

const beginOf = (t: Take) => t.runs[0]!.song

export const endOf = (t: Take) => {
  const last = t.runs.at(-1)!
  return last.song + last.frames
}

/** How much of a stretch a take must reach over at least to be one of it: what begins where another ends is none. */
const PART = 0.1

/** The takes of a row over a stretch of the song, the first recorded first. */
export const takesAt = (p: Project, row: string, from: number, to: number): Take[] =>
  (p.takes ?? []).filter(
    (t) => t.row === row && Math.min(endOf(t), to) - Math.max(beginOf(t), from) > PART * (to - from),
  )

/** Steps to the take before or behind the one that is heard. */
export function step(c: Channel, list: Take[], by: number, range: { from: number; to: number } | null) {
  const now = list.findLastIndex((t) => heardForm(c, t) !== '')
  const next = list[Math.min(Math.max(now + by, 0), list.length - 1)]
  if (!next || next === list[now]) return
  const form = now >= 0 ? heardForm(c, list[now]!) || 'treated' : 'treated'
  return choose(c, next, next.treated ? form : 'untouched', range)
}

export type Form = 'treated' | 'untouched'

/** In which form a take sounds on its row; empty: it does not. */
export function heardForm(c: Channel, t: Take): Form | '' {
  const clip = c.clips.find((x) => x.take === t.id && !x.mute)
  if (!clip) return ''
  return clip.audio === t.treated ? 'treated' : 'untouched'
}

/** Lets a take sound in one form: over the range, else where the takes of its place sound now. */
export const choose = (c: Channel, t: Take, form: Form, range: { from: number; to: number } | null) =>
  change(`${t.name} of ${c.name}, ${form}${range ? ', for the range' : ''}`, {
    type: 'take.choose',
    do: { id: t.id, ...(range && { from: range.from, to: range.to }), untouched: form === 'untouched' },
  })

export const rename = (t: Take, name: string) =>
  change(`Name ${t.name} anew`, { type: 'take.set', do: { id: t.id, name } })

/** Puts a take away, or takes it back: its sound is kept either way. */
export const drop = (t: Take, dropped: boolean) =>
  change(`${dropped ? 'Put away' : 'Take back'} ${t.name}`, { type: 'take.set', do: { id: t.id, dropped } })

export const loopTakes = (c: Channel, from: number, to: number) =>
  setLoop({ from, to, name: `${c.name}, takes` })

/** The takes at the place of a clip that plays one. */
export function openTakes(c: Channel, clip: Clip) {
  const from = useSession.getState().timeline?.clips[clip.id]
  if (from === undefined) return
  const to = from + clip.frames
  setView({ channel: c.id, clips: [], dialog: { kind: 'takes', row: c.id, from, to } })
}

/** The same of the clip that is selected. */
export function openTakesOfChosen() {
  const id = view().clips[0]
  for (const c of theProject()?.channels ?? []) {
    const clip = c.clips.find((x) => x.id === id)
    if (clip?.take) return openTakes(c, clip)
  }
}
