import type { Param } from '../api/types'
import { Pick, Toggle } from './Pick'
import { Scale } from './Scale'
import { isRuled, useParam } from './useParam'

type Props = {
  owner: string
  param: Param
  value: number
  of: string
  narrow?: boolean
  label?: string
  compact?: boolean
  caption?: string
}

/** A parameter by its address, as a scale, a choice or a switch. */
export function ParamControl({ owner, param, value, of, ...look }: Props) {
  const p = useParam(owner, param, value, of)
  if (param.taper === 'switch')
    return (
      <Toggle
        label={param.label}
        says={param.says}
        on={p.value !== 0}
        onSet={(on) => p.set(on ? 1 : 0, true)}
      />
    )
  if (!isRuled(param))
    return (
      <Pick
        label={param.label}
        says={param.says}
        value={p.value}
        choices={(param.choices ?? []).map((c, i) => ({ value: i, text: `${c} ${param.unit}`.trim() }))}
        onPick={(x) => p.set(x, true)}
      />
    )
  return (
    <Scale
      param={param}
      value={p.value}
      onMove={p.set}
      moved={p.moved}
      theirs={p.theirs}
      refused={p.refused}
      onLine={p.onLine}
      onMoves={p.onMoves}
      {...look}
    />
  )
}
