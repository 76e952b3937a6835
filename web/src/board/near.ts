import { type RefObject, startTransition, useEffect, useState } from 'react'

/* Of very many rows those near what is seen are drawn: each has dozens of figures that follow every change. */

/** So many rows are always all drawn. */
const MANY = 40
/** What is drawn above and below what is seen, in pixels: more than is scrolled at once. */
const MARGIN = 768
/** The steps in which scrolling is followed, in pixels. */
const STEP = 64

/** A stretch of the board, in pixels from its top. */
type Stretch = { top: number; bottom: number }

/** What a window shows before its height is known. */
const begin: Stretch = { top: 0, bottom: 768 }

/** Which rows are drawn, from one to before another, and how much room those above and below keep. */
export function near(heights: number[], seen: Stretch) {
  const all = sum(heights)
  if (heights.length <= MANY) return { from: 0, to: heights.length, above: 0, below: 0 }
  let from = 0
  let above = 0
  while (from < heights.length - 1 && above + heights[from]! < seen.top - MARGIN) above += heights[from++]!
  let to = from
  let end = above
  while (to < heights.length && end < seen.bottom + MARGIN) end += heights[to++]!
  return { from, to, above, below: all - end }
}

/** Follows what of a box is seen. As long as something is held by the pointer nothing that has been drawn goes: it may be what is
    held. */
export function useNear(box: RefObject<HTMLElement | null>, heights: number[]) {
  const [seen, setSeen] = useState(begin)
  useEffect(() => {
    const el = box.current!
    let held = false
    const look = () => {
      const now = around(el)
      // there is time until it is seen: the scrolling goes on meanwhile
      startTransition(() => setSeen((was) => following(was, now, held)))
    }
    const hold = () => (held = true)
    const release = () => {
      held = false
      look()
    }
    const size = new ResizeObserver(look)
    size.observe(el)
    const listening = new AbortController()
    const { signal } = listening
    el.addEventListener('scroll', look, { passive: true, signal })
    window.addEventListener('pointerdown', hold, { capture: true, signal })
    for (const end of ['pointerup', 'dragend'])
      window.addEventListener(end, release, { capture: true, signal })
    return () => {
      size.disconnect()
      listening.abort()
    }
  }, [box])
  /** Brings a row that is not drawn to the middle. */
  const bring = (place: number) => {
    const el = box.current!
    const top = sum(heights.slice(0, place))
    el.scrollTop = top + heights[place]! / 2 - el.clientHeight / 2
  }
  return { ...near(heights, seen), bring }
}

/** What is seen now; as long as something is held, what was seen before as well. */
function following(was: Stretch, now: Stretch, held: boolean): Stretch {
  const next = held ? { top: Math.min(was.top, now.top), bottom: Math.max(was.bottom, now.bottom) } : now
  return next.top === was.top && next.bottom === was.bottom ? was : next
}

const sum = (list: number[]) => list.reduce((a, b) => a + b, 0)

const around = (el: HTMLElement): Stretch => ({
  top: Math.floor(el.scrollTop / STEP) * STEP,
  bottom: Math.ceil((el.scrollTop + el.clientHeight) / STEP) * STEP,
})
