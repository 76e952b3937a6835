import type { Param } from '../api/types'
import { Scale } from '../controls/Scale'
import { useSettled } from '../controls/useSettled'

type Props = {
  param: Param
  value: number
  of: string
  onSet: (v: number) => void
  onNote?: (name: string) => boolean
}

/** A scale of a clip: it is set when the hand rests. */
export function ClipScale({ param, value, of, onSet, onNote }: Props) {
  const settled = useSettled(value, onSet)
  return (
    <Scale
      param={param}
      caption={param.label}
      label={`${param.label} of ${of}`}
      onNote={onNote}
      {...settled}
    />
  )
}
