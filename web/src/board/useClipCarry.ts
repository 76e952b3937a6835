import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import type { Clip } from '../api/types'
import type { Lens } from '../document/time'
import * as clips from './clips'
import { scale } from '../theme/size'

/** Carrying a clip along its row, by hand or by keys. */
export function useCarry(clip: Clip, row: string, lens: Lens) {
  const [by, setBy] = useState(0)
  const from = useRef<number | null>(null)
  return {
    by,
    down: (e: PointerEvent) => {
      if (e.button !== 0) return
      from.current = e.clientX
      e.currentTarget.setPointerCapture(e.pointerId)
    },
    drags: (e: PointerEvent) => {
      if (from.current === null) return
      const d = (e.clientX - from.current) / scale()
      if (by !== 0 || Math.abs(d) > 3) setBy(d || 0.01)
    },
    up: (e: PointerEvent) => {
      if (from.current !== null && by !== 0)
        clips.move(clip, row, { by: by * lens.perPixel, free: e.altKey, copy: e.ctrlKey || e.metaKey })
      from.current = null
      setBy(0)
    },
    cancel: () => {
      from.current = null
      setBy(0)
    },
    key: (e: KeyboardEvent) => {
      const step = e.key === 'ArrowLeft' ? -1 : e.key === 'ArrowRight' ? 1 : 0
      if (e.key === 'Delete' || e.key === 'Backspace') void clips.remove(clip)
      else if (step && !e.ctrlKey && !e.metaKey) clips.step(clip, row, step)
      else return
      e.preventDefault()
      e.stopPropagation()
    },
  }
}
