import { setView, view } from '../session/view'

/* How large everything is drawn, in percent of what it is made for. */

export const SIZES = [80, 90, 100, 110, 125, 150]

/** One size larger or smaller. */
export function turnSize(by: 1 | -1) {
  const at = SIZES.indexOf(view().size)
  const size = SIZES[(at < 0 ? SIZES.indexOf(100) : at) + by]
  if (size) setView({ size })
}
