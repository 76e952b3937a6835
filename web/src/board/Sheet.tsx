import { type ComponentProps, type RefObject, useLayoutEffect, useRef, useState } from 'react'
import type { Timeline } from '../api/types'
import { useSeen } from '../clips/useSeen'
import { lensAt, type Lens, perPixelOf } from '../document/time'
import { useView, view } from '../session/view'

/** How far the song is scrolled before what lies on a sheet is drawn anew, in pixels: as much more than the window is
    wide is drawn of it. */
export const SPARE = 512

/** By how much one row's sheet is drawn anew after the next one's, so that they do not do it all at once. */
const APART = 64

/** The lens of a row's sheet: the same one until the song has been scrolled by a step or zoomed, and while the row is
    out of sight. */
export function useSheet(
  timeline: Timeline,
  width: number,
  index: number,
  box: RefObject<Element | null>,
): Lens {
  const zoom = useView((v) => v.zoom)
  const seen = useSeen(box)
  const perPixel = perPixelOf(timeline, width, zoom)
  const from = useView((v) => stepBefore(v.scroll / perPixel, index))
  const now = { perPixel, from }
  const [shown, setShown] = useState(now)
  const moved = shown.perPixel !== perPixel || shown.from !== from
  if (moved && seen) setShown(now)
  const at = seen ? now : shown
  return lensAt(at.perPixel, at.from * at.perPixel)
}

/** Where the sheet of a row begins when the song is scrolled so far, in pixels from its begin. */
export function stepBefore(x: number, index: number): number {
  const phase = (index * APART) % SPARE
  return Math.max(0, Math.floor((x - phase) / SPARE) * SPARE + phase)
}

/** What lies along the song: it is shoved as the song is scrolled, without being drawn anew. */
export function Sheet({
  lens,
  width,
  style,
  ...rest
}: ComponentProps<'div'> & { lens: Lens; width: number }) {
  const box = useRef<HTMLDivElement>(null)
  useLayoutEffect(() => {
    const lay = () => {
      const by = Math.round((lens.scroll - view().scroll) / lens.perPixel)
      box.current!.style.transform = `translateX(${by}px)`
    }
    lay()
    return useView.subscribe((v, before) => v.scroll !== before.scroll && lay())
  }, [lens.scroll, lens.perPixel])
  return <div ref={box} style={{ ...style, width: width + SPARE, willChange: 'transform' }} {...rest} />
}
