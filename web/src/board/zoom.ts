import { session } from '../session/store'
import { setView, view } from '../session/view'

/** Zooms around a place on the board, or around its middle. */
export function zoomBy(factor: number, x?: number, width = 1100) {
  const t = session().timeline
  if (!t) return
  const v = view()
  const now = v.zoom || (t.shown * 1.01) / width
  const next = Math.min(Math.max(now * factor, 40), (t.shown * 1.01) / width)
  const at = x ?? width / 2
  const scroll = Math.max(0, v.scroll + at * (now - next))
  setView(next >= (t.shown * 1.01) / width ? { zoom: 0, scroll: 0 } : { zoom: next, scroll })
}
