import { change } from './changes'
import { theEngine } from './sound'
import { notice, useSession } from './store'
import { view } from './view'

/* Playing a line in by hand: while the song plays and a scale with a line is held, the hand has the
   parameter, and what it does is noted with the frame that was heard. Let go, or stopped, it becomes points. */

type Taking = {
  owner: string
  name: string
  label: string
  frames: number[]
  values: number[]
  timer: number
}

const taking = new Map<string, Taking>()
let held = false
let idle = 0

addEventListener('pointerdown', () => (held = true), true)
addEventListener(
  'pointerup',
  () => {
    held = false
    if (!view().untilStop) setTimeout(finishAll) // after what the scale itself says at its end
  },
  true,
)

export const hasLine = (owner: string, name: string) =>
  useSession.getState().project?.lines.some((l) => l.owner === owner && l.name === name) ?? false

/** Whether a move of this parameter is one to take down: it has a line, and the song plays. */
export const takesDown = (owner: string, name: string) => view().playing && hasLine(owner, name)

/** A hand has moved it. */
export function takeDown(owner: string, name: string, value: number, label: string) {
  const key = `${owner} ${name}`
  const engine = theEngine()
  if (!engine) return
  let t = taking.get(key)
  if (!t) {
    t = { owner, name, label, frames: [], values: [], timer: 0 }
    taking.set(key, t)
    engine.take(owner, name, true)
    useSession.setState((s) => ({ takingDown: [...s.takingDown, key] }))
    const hold = t
    t.timer = window.setInterval(() => note(hold, hold.values.at(-1)!), 25)
  }
  engine.move(owner, name, value)
  note(t, value)
  clearTimeout(idle)
  if (!held && !view().untilStop) idle = window.setTimeout(finishAll, 500)
}

function note(t: Taking, value: number) {
  const at = Math.round(theEngine()?.heard()?.song ?? 0)
  const last = t.frames.at(-1)
  if (last !== undefined && at < last) return finish(t) // the loop has turned
  if (at === last) t.values[t.values.length - 1] = value
  else {
    t.frames.push(at)
    t.values.push(value)
  }
}

export function finishAll() {
  clearTimeout(idle)
  for (const t of [...taking.values()]) finish(t)
}

function finish(t: Taking) {
  const key = `${t.owner} ${t.name}`
  if (!taking.delete(key)) return
  clearInterval(t.timer)
  void (async () => {
    const rate = useSession.getState().project?.sampleRate ?? 48000
    const done = await change(`Take down ${t.label}`, {
      type: 'line.take-down',
      do: {
        owner: t.owner,
        name: t.name,
        from: 0,
        to: 0,
        frames: t.frames,
        values: t.values,
        glide: Math.round((view().glide / 1000) * rate),
      },
    })
    theEngine()?.take(t.owner, t.name, false)
    useSession.setState((s) => ({
      takingDown: s.takingDown.filter((k) => k !== key),
      moving: Object.fromEntries(Object.entries(s.moving).filter(([k]) => k !== key)),
    }))
    if (done) notice(`${t.label} was taken down.`)
  })()
}
