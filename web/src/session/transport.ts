import { hear } from './listening'
import { theEngine } from './sound'
import { notice, refused, session, theProject } from './store'
import { finishAll } from './takedown'
import { type Range, setView, view } from './view'

/* Playing, the playhead, the loop, and which rows are heard alone: for this window only. */

let ownGesture: () => void = () => undefined
/** Says what is to be told when somebody plays, stops or goes elsewhere by a gesture of their own. */
export const onOwnGesture = (tell: () => void) => (ownGesture = tell)

/** What a person can do; each asks Go for a change and says in words what it was. */

export async function togglePlay() {
  ownGesture()
  const engine = theEngine()
  const p = theProject()
  if (!engine || !p) return
  if (view().playing) {
    finishAll()
    engine.stop()
    return
  }
  try {
    await engine.play(p.sampleRate)
  } catch (e) {
    refused(e)
  }
}

/** Sets the playhead, on a grid in ticks if one is given. */
export function locate(frame: number, grid = 0) {
  ownGesture()
  theEngine()?.locate(frame, grid)
}

export function setLoop(loop: Range | null, looping = loop !== null) {
  setView({ loop, looping })
  theEngine()?.loop(looping && loop ? loop.from : 0, looping && loop ? loop.to : 0)
}

/** Ends the loop; or begins that of the range which is drawn, or of the section at the playhead. */
export function toggleLoop() {
  const { loop, looping } = view()
  const whole = session().timeline?.sections.some((s) => s.from === loop?.from && s.to === loop.to)
  if (looping && loop) setLoop(whole ? null : loop, false)
  else if (loop && !whole) setLoop(loop)
  else loopSection()
}

/** Whether the song stops at its end, or goes on. */
export function stopAtEnd(stopsAtEnd: boolean) {
  setView({ stopsAtEnd })
  theEngine()?.atEnd(stopsAtEnd)
}

export function toggleSolo(id: string, only: boolean) {
  const now = view().solo
  let solo = now.includes(id) ? now.filter((x) => x !== id) : [...now, id]
  if (only) solo = now.length === 1 && now[0] === id ? [] : [id]
  hear({ solo, dry: '', share: '' })
}

export function loopSection(id?: string) {
  const t = session().timeline
  if (!t) return
  const at = theEngine()?.heard()?.song ?? 0
  const s = t.sections.find((x) => (id ? x.id === id : x.from <= at && at < x.to))
  if (!s) {
    notice('There is no section here to loop. Drag along the ruler to set a range.')
    return
  }
  setLoop({ from: s.from, to: s.to, name: s.name })
  if (at < s.from || at >= s.to) locate(s.from)
}
