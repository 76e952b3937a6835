import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import type { Clip } from '../api/types'
import type { Lens } from '../document/time'
import { scale, within } from '../theme/size'
import { view } from '../session/view'
import * as actions from './actions'
import { chosen, pick } from './chosen'

/** How near something has to be for an edge to meet it, in pixels. */
const NEAR = 6
/** How much of each end of a clip is its edge, in pixels. */
const EDGE = 7

export type Grip = 'move' | 'begin' | 'end' | 'slip'

/** A hand on a clip: it carries it, moves an edge, or slides the content; and so do keys. */
export function useHand(clip: Clip, row: string, lens: Lens) {
  const [drag, setDrag] = useState<{ grip: Grip; by: number } | null>(null)
  const from = useRef<number | null>(null)
  const grip = useRef<Grip>('move')
  const over = (e: PointerEvent): Grip => {
    if (e.shiftKey && e.altKey) return 'slip'
    const box = e.currentTarget.getBoundingClientRect()
    const { x } = within(e, e.currentTarget)
    const width = box.width / scale()
    if (width < 4 * EDGE) return 'move'
    return x < EDGE ? 'begin' : x > width - EDGE ? 'end' : 'move'
  }
  const end = () => {
    from.current = null
    setDrag(null)
  }
  return {
    drag,
    over,
    down: (e: PointerEvent) => {
      if (e.button !== 0 || (e.shiftKey && !e.altKey)) return // with Shift a range begins on the row
      e.stopPropagation()
      from.current = e.clientX
      grip.current = over(e)
      e.currentTarget.setPointerCapture(e.pointerId)
    },
    drags: (e: PointerEvent) => {
      if (from.current === null) return
      const by = (e.clientX - from.current) / scale()
      if (drag || Math.abs(by) > 3) setDrag({ grip: grip.current, by: by || 0.01 })
    },
    up: (e: PointerEvent) => {
      if (from.current === null) return
      if (!drag) pick(clip.id, row, e.ctrlKey || e.metaKey)
      else {
        const by = drag.by * lens.perPixel
        const near = NEAR * lens.perPixel
        const all = view().clips.includes(clip.id) ? chosen() : [clip]
        if (drag.grip === 'slip') void actions.slip(all, by)
        else if (drag.grip !== 'move')
          void actions.trim(clip, drag.grip, by, { free: e.altKey, both: e.ctrlKey || e.metaKey, near })
        else
          actions.move(all, {
            by,
            near,
            free: e.altKey,
            copy: e.ctrlKey || e.metaKey,
            row: all.length === 1 ? rowUnder(e, row) : '',
          })
      }
      end()
    },
    cancel: end,
    key: (e: KeyboardEvent) => {
      const step = e.key === 'ArrowLeft' ? -1 : e.key === 'ArrowRight' ? 1 : 0
      if (e.key === 'Enter' && !view().piece) pick(clip.id, row, e.ctrlKey)
      else if (e.key === 'Delete' || e.key === 'Backspace') actions.remove([clip])
      else if (step && !e.ctrlKey && !e.metaKey && !e.altKey && !e.shiftKey) {
        if (!view().clips.includes(clip.id)) pick(clip.id, row, false)
        actions.step(step)
      } else return
      e.preventDefault()
      e.stopPropagation()
    },
  }
}

/** Another row that the pointer is over. */
function rowUnder(e: PointerEvent, row: string): string {
  const id = document
    .elementsFromPoint(e.clientX, e.clientY)
    .map((el) => el.closest('[data-row]')?.getAttribute('data-row'))
    .find(Boolean)
  return id && id !== row ? id : ''
}
