import { useLayoutEffect, useRef } from 'react'
import { useShallow } from 'zustand/react/shallow'
import type { Presence } from '../api/types'
import { Mark } from '../crew/Mark'
import { tintOf } from '../crew/person'
import { useSession } from '../session/store'
import { view } from '../session/view'
import { heardAgo, isAnother, songAfter } from '../session/whereabouts'

/** Where others play: a small flag for each on the ruler, with their mark. It goes on by what they said last. */
export function OtherPlayheads({ perPixel, rate }: { perPixel: number; rate: number }) {
  const playing = useSession(
    useShallow((s) => s.people.filter((p) => p.heard?.playing && isAnother(p, s.me))),
  )
  return playing.map((p) => <Flag key={p.window} of={p} perPixel={perPixel} rate={rate} />)
}

function Flag({ of: p, perPixel, rate }: { of: Presence; perPixel: number; rate: number }) {
  const flag = useRef<HTMLSpanElement>(null)
  // as soon as its element goes: a clock that goes on finds none
  useLayoutEffect(() => {
    const lay = () => {
      const song = songAfter(p.heard!, heardAgo(p), rate)
      flag.current!.style.transform = `translateX(${Math.round((song - view().scroll) / perPixel)}px)`
    }
    lay()
    const going = setInterval(lay, 100) // it tells about where somebody is, not when
    return () => clearInterval(going)
  }, [p, perPixel, rate])
  const name = p.person.name || 'Somebody without a name'
  return (
    <span ref={flag} className="pointer-events-none absolute bottom-0 left-0 h-[22px]" data-playhead={name}>
      <span className="absolute bottom-0 h-full w-[2px]" style={{ background: tintOf(p.person.id) }} />
      <span className="absolute bottom-0.5 left-1">
        <Mark id={p.person.id} name={p.person.name} says={`${name} plays here`} small />
      </span>
    </span>
  )
}
