import { useEffect, useRef, useState } from 'react'

/** How long a hand rests before what it has set is meant, in ms. */
const REST = 350

/** A value that is shown as the hand moves it, and set when the hand rests: at once when it lets go, a moment after a
    key. */
export function useSettled(value: number, onSettle: (v: number) => void) {
  const [held, setHeld] = useState<number | null>(null)
  const timer = useRef(0)
  useEffect(() => () => clearTimeout(timer.current), [])
  const settle = (v: number) => {
    setHeld(null)
    if (v !== value) onSettle(v)
  }
  return {
    value: held ?? value,
    onMove: (v: number, rest: boolean) => {
      clearTimeout(timer.current)
      setHeld(v)
      if (rest) settle(v)
      else timer.current = window.setTimeout(() => settle(v), REST)
    },
  }
}
