import { setView, useView, view } from '../session/view'

/* How large everything is drawn, in percent of what it is made for. */

export const SIZES = [80, 90, 100, 110, 125, 150]

/** One size larger or smaller. */
export function turnSize(by: 1 | -1) {
  const at = SIZES.indexOf(view().size)
  const size = SIZES[(at < 0 ? SIZES.indexOf(100) : at) + by]
  if (size) setView({ size })
}

/** Draws everything in the size that is set. */
export function beginSize() {
  const apply = () => {
    document.documentElement.style.setProperty('zoom', String(view().size / 100))
  }
  apply()
  useView.subscribe((v, before) => v.size !== before.size && apply())
}

/** How many pixels of the screen one of the layout is: pointers speak of the first, all that is laid out of the
    second. */
export function scale(): number {
  const root = document.getElementById('root')
  return root?.offsetWidth ? root.getBoundingClientRect().width / root.offsetWidth : 1
}

/** Where a pointer is within an element, in pixels of the layout. */
export function within(e: { clientX: number; clientY: number }, box: Element) {
  const r = box.getBoundingClientRect()
  const k = scale()
  return { x: (e.clientX - r.left) / k, y: (e.clientY - r.top) / k }
}
