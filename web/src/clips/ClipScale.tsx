import { useState } from 'react'
import type { Param } from '../api/types'
import { Scale } from '../controls/Scale'

/** A scale of a clip: it is set when the hand rests. */
export function ClipScale(p: { param: Param; value: number; of: string; onSet: (v: number) => void }) {
  const [moving, setMoving] = useState<number | null>(null)
  return (
    <Scale
      param={p.param}
      value={moving ?? p.value}
      caption={p.param.label}
      label={`${p.param.label} of ${p.of}`}
      onMove={(v, rest) => {
        setMoving(rest ? null : v)
        if (rest && v !== p.value) p.onSet(v)
      }}
    />
  )
}
