import { type DragEvent, useState } from 'react'
import { carriedThing } from '../board/carry'
import type { Lens } from '../document/time'
import * as shelf from '../shelf/actions'
import { within } from '../theme/size'

/** How near something has to be for what lands to meet it, in pixels. */
const NEAR = 6

/** What lets the air of a row take a thing from the shelf, where it is dropped; and where that would be, in pixels. */
export function useLanding(row: string, lens: Lens) {
  const [at, setAt] = useState<number | null>(null)
  const where = (e: DragEvent) => within(e, e.currentTarget).x
  return {
    at,
    takes: {
      onDragOver: (e: DragEvent) => {
        if (!carriedThing()) return
        e.preventDefault()
        setAt(where(e))
      },
      onDragLeave: () => setAt(null),
      onDrop: (e: DragEvent) => {
        const thing = carriedThing()
        setAt(null)
        if (!thing) return
        e.preventDefault()
        e.stopPropagation()
        const near = NEAR * lens.perPixel
        void shelf.drop(thing, row, Math.max(0, lens.frame(where(e))), { free: e.altKey, near })
      },
    },
  }
}
