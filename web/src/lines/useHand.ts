import { type PointerEvent, type RefObject, useState } from 'react'
import type { LineView } from '../api/types'
import type { Lens } from '../document/time'
import { type Chosen, setView, view } from '../session/view'
import { type Drag, letGo, type Line, nearest, press, pull } from './drag'
import { lineKey } from './lineKeys'
import { within } from '../theme/size'

export type { Drag } from './drag'

/** What a pointer and the keys do to a line: points are moved, a stretch or a box is selected, a flat line is
    set, a segment bent. */
export function useHand(
  v: LineView,
  lens: Lens,
  box: RefObject<SVGSVGElement | null>,
  row: string,
  width: number,
) {
  const [drag, setDrag] = useState<Drag | null>(null)
  const [over, setOver] = useState<number | null>(null) // the point under the pointer, by its tick
  const where = (e: { clientX: number; clientY: number }) => within(e, box.current!)
  const line: Line = {
    v,
    lens,
    row,
    width,
    mine: () => {
      const s = view().stretch // as it is now: a key may follow a drag before that is drawn
      return s?.owner === v.owner && s.name === v.name ? s : null
    },
    select: (from: number, to: number, points?: number[], more?: Chosen[]) => {
      const ticks = points ?? ticksIn(v, from, to)
      setView({ stretch: { owner: v.owner, name: v.name, from, to, ticks, more, drawn: !points } })
    },
  }

  const down = (e: PointerEvent) => {
    if (e.button !== 0) return
    e.stopPropagation()
    box.current!.focus({ preventScroll: true }) // what is taken hold of stays where it is
    e.currentTarget.setPointerCapture(e.pointerId)
    setDrag(press(line, where(e), e))
  }
  const drags = (e: PointerEvent) => {
    const w = where(e)
    if (drag) setDrag(pull(line, drag, w, e))
    else setOver(nearest(line, w)?.tick ?? null)
  }
  const up = (e: PointerEvent) => {
    setDrag(null)
    if (view().pull) setView({ pull: null })
    if (drag) letGo(line, drag, e)
  }
  return { drag, over, where, down, drags, up, key: lineKey(line), leave: () => setOver(null) }
}

const ticksIn = (v: LineView, from: number, to: number) =>
  v.points.filter((pt) => pt.frame >= from && pt.frame <= to).map((pt) => pt.tick)
