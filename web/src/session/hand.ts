import { changeIn } from './changes'
import { gesture } from './gesture'
import { theEngine } from './sound'
import { notice, session, setSession } from './store'
import { takeDown, takesDown } from './takedown'
import { markRefused } from './theirs'

/* A parameter under a hand. */

const settle = new Map<string, ReturnType<typeof setTimeout>>()

/** Moves a parameter: the engine hears it at once, the server when the hand rests. */
export function move(owner: string, name: string, value: number, label: string, rest = false) {
  const key = `${owner} ${name}`
  const within = gesture()
  setSession((s) => ({ moving: { ...s.moving, [key]: value } }))
  if (takesDown(owner, name)) return takeDown(owner, name, value, label)
  const line = session().project?.lines.find((l) => l.owner === owner && l.name === name)
  theEngine()?.move(owner, name, value)
  clearTimeout(settle.get(key))
  settle.set(
    key,
    setTimeout(
      async () => {
        if (line?.points.length) {
          // by hand it would not stick: its line moves it
          const from = Math.round(theEngine()?.heard()?.song ?? 0)
          await changeIn(within, `Put a point on ${label}`, {
            type: 'line.put',
            do: { owner, name, from, to: from, value },
          })
          notice(`${label} follows its line: a point is at the playhead now.`)
        } else if (!(await changeIn(within, label, { type: 'param.set', do: { owner, name, value } })))
          markRefused(key)
        if (session().moving[key] === value) {
          setSession((s) => ({
            moving: Object.fromEntries(Object.entries(s.moving).filter(([k]) => k !== key)),
          }))
        }
      },
      rest ? 0 : 250,
    ),
  )
}
