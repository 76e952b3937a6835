import { useRef, useState } from 'react'
import type { Param } from '../api/types'
import { Scale } from '../controls/Scale'

/** A scale whose value is set when the hand rests. */
export function Settle(p: { param: Param; value: number; onSettle: (v: number) => void }) {
  const [held, setHeld] = useState<number | null>(null)
  const timer = useRef(0)
  const settle = (v: number) => {
    setHeld(null)
    if (v !== p.value) p.onSettle(v)
  }
  // there is no room for the unit behind the figure
  const { label, unit } = p.param
  const param = unit && !label.includes(',') ? { ...p.param, label: `${label}, ${unit}` } : p.param
  return (
    <Scale
      param={param}
      value={held ?? p.value}
      compact
      onMove={(v, rest) => {
        clearTimeout(timer.current)
        setHeld(v)
        if (rest) settle(v)
        else timer.current = window.setTimeout(() => settle(v), 350)
      }}
    />
  )
}
