import { type RefObject, useEffect } from 'react'
import type { Timeline } from '../api/types'
import { setView, view } from '../session/view'
import { zoomBy } from './zoom'
import { within } from '../theme/size'

/** The wheel along the song: with Ctrl nearer and farther, sideways or with Shift on and back. */
export function useWheel(
  box: RefObject<HTMLElement | null>,
  timeline: Timeline | null,
  perPixel: number,
  width: number,
) {
  useEffect(() => {
    const el = box.current!
    const wheel = (e: WheelEvent) => {
      if (!timeline || view().tide === 'high') return
      if (e.ctrlKey) {
        e.preventDefault()
        zoomBy(e.deltaY < 0 ? 0.8 : 1.25, within(e, el).x - view().headWidth, width)
      } else if (e.deltaX !== 0 || e.shiftKey) {
        e.preventDefault()
        const by = (e.deltaX || e.deltaY) * perPixel
        setView({
          zoom: perPixel,
          scroll: Math.max(0, Math.min(view().scroll + by, timeline.shown - width * perPixel * 0.5)),
        })
      }
    }
    el.addEventListener('wheel', wheel, { passive: false })
    return () => el.removeEventListener('wheel', wheel)
  }, [box, timeline, perPixel, width])
}
