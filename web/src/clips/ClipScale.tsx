import type { Param } from '../api/types'
import { Scale } from '../controls/Scale'
import { useSettled } from '../controls/useSettled'

/** A scale of a clip: it is set when the hand rests. */
export function ClipScale(p: { param: Param; value: number; of: string; onSet: (v: number) => void }) {
  const settled = useSettled(p.value, p.onSet)
  return <Scale param={p.param} caption={p.param.label} label={`${p.param.label} of ${p.of}`} {...settled} />
}
