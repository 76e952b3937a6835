import { useLayoutEffect, useRef, useState } from 'react'

/** A box that scrolls: how high it is, and whether there is more of it to the left, to the right and below. */
export function useBox() {
  const box = useRef<HTMLDivElement>(null)
  const [height, setHeight] = useState(150)
  const [less, setLess] = useState(false)
  const [more, setMore] = useState(false)
  const [below, setBelow] = useState(false)
  const look = () => {
    const b = box.current
    if (!b) return
    setLess(b.scrollLeft > 4)
    setMore(b.scrollLeft + b.clientWidth < b.scrollWidth - 4)
    setBelow(b.scrollTop + b.clientHeight < b.scrollHeight - 12)
  }
  useLayoutEffect(() => {
    const o = new ResizeObserver(() => {
      setHeight(box.current!.clientHeight)
      look()
    })
    o.observe(box.current!)
    o.observe(box.current!.firstElementChild!)
    return () => o.disconnect()
  }, [])
  return { box, height, less, more, below, look }
}
