import { useEffect, useRef } from 'react'
import type { Heard } from './engine'
import { theEngine } from './session'

/** Paints what is heard, outside React: figures and bars move without a render. */
type Painter = (h: Heard) => void

const painters = new Set<Painter>()
let running = false

function frame() {
  const h = theEngine()?.heard()
  if (h) for (const p of painters) p(h)
  if (painters.size > 0) requestAnimationFrame(frame)
  else running = false
}

export function useHeard(paint: Painter) {
  const ref = useRef(paint)
  useEffect(() => {
    ref.current = paint
  })
  useEffect(() => {
    const p: Painter = (h) => ref.current(h)
    painters.add(p)
    if (!running) {
      running = true
      requestAnimationFrame(frame)
    }
    return () => void painters.delete(p)
  }, [])
}

/** Keeps the highest level over a time in ms, so that a figure can be read. */
export class Hold {
  private top = -120
  private since = 0
  private shown = -120

  constructor(private ms: number) {}

  feed(level: number, at = performance.now()): number {
    this.top = Math.max(this.top, level)
    if (at - this.since > this.ms || this.top > this.shown + 3) {
      this.shown = this.top
      this.top = level
      this.since = at
    }
    return this.shown
  }
}
