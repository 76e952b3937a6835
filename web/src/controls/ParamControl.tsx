import { useState } from 'react'
import type { Param } from '../api/types'
import { useLineValue } from '../lines/values'
import { openLine } from '../live/lines'
import { moveTogether } from '../live/selection'
import { useSession } from '../live/session'
import { place } from './format'
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
  const line = useSession((s) => s.project?.lines.find((l) => l.owner === owner && l.name === param.name))
  const [now, setNow] = useState<number | null>(null)
  const follows = (line?.points.length ?? 0) > 0
  useLineValue(owner, param.name, (x) => setNow(x), follows)
  const v = moving ?? (follows ? now : null) ?? value
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
  const places = follows ? line!.points.map((p) => place(param, p.value)) : []
  return (
    <Scale
      param={param}
      value={v}
      onMove={set}
      moved={follows ? { low: Math.min(...places), high: Math.max(...places) } : null}
      onLine={
        param.structural ? undefined : () => void openLine(owner, param.name, `${param.label} of ${of}`)
      }
      {...look}
    />
  )
}
