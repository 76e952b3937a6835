import type { Param } from '../api/types'
import { Scale } from '../controls/Scale'
import { useSettled } from '../controls/useSettled'

/** A scale whose value is set when the hand rests. */
export function Settle(p: { param: Param; value: number; onSettle: (v: number) => void }) {
  const settled = useSettled(p.value, p.onSettle)
  // there is no room for the unit behind the figure
  const { label, unit } = p.param
  const param = unit && !label.includes(',') ? { ...p.param, label: `${label}, ${unit}` } : p.param
  return <Scale param={param} compact {...settled} />
}
