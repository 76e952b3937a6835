import { changeIn, onNext } from './changes'
import { gesture } from './gesture'
import { handled } from './handled'
import { theEngine } from './sound'
import { notice, session, setSession } from './store'
import { takeDown, takesDown } from './takedown'
import { markRefused } from './theirs'

/* A parameter under a hand. */

/** What the server is told when a hand rests, by owner and name. */
const resting = new Map<string, { timer: ReturnType<typeof setTimeout>; tell: () => void }>()

/** Tells the server now of what a hand has moved. */
function tell(key: string) {
  const held = resting.get(key)
  if (!held) return
  clearTimeout(held.timer)
  resting.delete(key)
  held.tell()
}
onNext(() => [...resting.keys()].forEach(tell))

/** Moves a parameter: the engine hears it at once, the server when the hand rests, or does something else. */
export function move(owner: string, name: string, value: number, label: string, rest = false) {
  const key = `${owner} ${name}`
  const within = gesture()
  handled(key)
  setSession((s) => ({ moving: { ...s.moving, [key]: value } }))
  if (takesDown(owner, name)) return takeDown(owner, name, value, label)
  theEngine()?.move(owner, name, value)
  clearTimeout(resting.get(key)?.timer)
  const settle = async () => {
    if (!(await settled(owner, name, value, label, within))) markRefused(key)
    if (session().moving[key] !== value) return
    setSession((s) => ({
      moving: Object.fromEntries(Object.entries(s.moving).filter(([k]) => k !== key)),
    }))
  }
  resting.set(key, { timer: setTimeout(() => tell(key), rest ? 0 : 250), tell: () => void settle() })
}

/** Sets the parameter; where a line moves it, it would not stick: a point is put at the playhead. */
async function settled(owner: string, name: string, value: number, label: string, within: string) {
  const line = session().project?.lines.find((l) => l.owner === owner && l.name === name)
  if (!line?.points.length) return changeIn(within, label, { type: 'param.set', do: { owner, name, value } })
  const from = Math.round(theEngine()?.heard()?.song ?? 0)
  await changeIn(within, `Put a point on ${label}`, {
    type: 'line.put',
    do: { owner, name, from, to: from, value },
  })
  notice(`${label} follows its line: a point is at the playhead now.`)
  return true
}
