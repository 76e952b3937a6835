import { useState } from 'react'
import type { LineValue, Param } from '../api/types'
import { moveTogether } from '../bench/several'
import { openLine } from '../lines/actions'
import { useLineValue } from '../lines/values'
import { isMoved } from '../moves/actions'
import { useSession } from '../session/store'
import { setView } from '../session/view'
import { Pick, Toggle } from './Pick'
import { Scale } from './Scale'

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

/** A parameter by its address: what a hand moves here is heard at once and stored when it rests. */
export function ParamControl({ owner, param, value, of, ...look }: Props) {
  const moving = useSession((s) => s.moving[`${owner} ${param.name}`])
  const moved = useSession((s) => isMoved(s.project, owner, param.name))
  const [now, setNow] = useState<LineValue | null>(null)
  useLineValue(owner, param.name, setNow, moved)
  const live = moved ? now : null
  // under a hand it is where the hand is, except where a handle or a mover carries it on
  const v = (moving !== undefined && (!live || live.by === 'line') ? moving : live?.value) ?? value
  const set = (x: number, rest: boolean) =>
    moveTogether(owner, param.name, x, `${param.label} of ${of}`, rest)
  if (param.taper === 'switch')
    return <Toggle label={param.label} says={param.says} on={v !== 0} onSet={(on) => set(on ? 1 : 0, true)} />
  // note lengths are a ruler too: they have an order, and can be typed
  if (param.taper === 'choice' && !/^\d+\/\d+$/.test(param.choices?.[0] ?? ''))
    return (
      <Pick
        label={param.label}
        says={param.says}
        value={v}
        choices={(param.choices ?? []).map((c, i) => ({ value: i, text: `${c} ${param.unit}`.trim() }))}
        onPick={(x) => set(x, true)}
      />
    )
  const label = `${param.label} of ${of}`
  return (
    <Scale
      param={param}
      value={v}
      onMove={set}
      moved={live}
      onLine={param.structural ? undefined : () => void openLine(owner, param.name, label)}
      onMoves={
        param.structural ? undefined : () => setView({ dialog: { kind: 'moves', owner, param, label } })
      }
      {...look}
    />
  )
}
