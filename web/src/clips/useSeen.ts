import { type RefObject, useEffect, useState } from 'react'

type Told = (seen: boolean) => void

const told = new Map<Element, Told>()
let observer: IntersectionObserver | undefined

/** One observer for all: what is near the window is told so, and what leaves it too. */
function watch(el: Element, tell: Told) {
  observer ??= new IntersectionObserver(
    (list) => list.forEach((x) => told.get(x.target)?.(x.isIntersecting)),
    { rootMargin: '600px' },
  )
  told.set(el, tell)
  observer.observe(el)
  return () => {
    told.delete(el)
    observer?.unobserve(el)
  }
}

/** Whether something is in sight, or nearly so: what is drawn there need not be drawn before. Where nobody can tell,
    it is. */
export function useSeen(ref: RefObject<Element | null>): boolean {
  const [seen, setSeen] = useState(typeof IntersectionObserver === 'undefined')
  useEffect(() => {
    if (!ref.current || typeof IntersectionObserver === 'undefined') return
    return watch(ref.current, setSeen)
  }, [ref])
  return seen
}
