import { useEffect, useState } from 'react'

/** How many rows are drawn at once: more than a window shows. */
const AT_ONCE = 24

/** How many of very many rows are drawn already: those that are seen at first, then a few more in each pause, so that the page
    can be used meanwhile. Whoever wants one of the others has all of them. */
export function useGradually(count: number, wanted: number): number {
  const [drawn, setDrawn] = useState(AT_ONCE)
  const all = drawn >= count
  useEffect(() => {
    if (all) return
    const next = setTimeout(() => setDrawn((n) => n + AT_ONCE / 2))
    return () => clearTimeout(next)
  }, [all, drawn])
  return wanted >= drawn ? count : Math.min(count, drawn)
}
