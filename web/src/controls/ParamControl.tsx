import { useState } from 'react'
import type { Param } from '../api/types'
import { useLineValue } from '../lines/values'
import { openLine } from '../live/lines'
import { depthOf, handleOf } from '../live/moves'
import { setView } from '../live/view'
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
  const movers = useSession((s) => s.project?.movers)?.filter((m) =>
    m.targets.some((t) => t.owner === owner && t.name === param.name),
  )
  const handle = useSession((s) => handleOf(s.project, owner, param.name))
  const [now, setNow] = useState<number | null>(null)
  const lined = (line?.points.length ?? 0) > 0
  const follows = lined || !!handle || !!movers?.length
  useLineValue(owner, param.name, (x) => setNow(x), follows)
  // under a hand it is where the hand is, except where a mover carries it on
  const v = (movers?.length || handle ? null : moving) ?? (follows ? now : null) ?? moving ?? value
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
  const target = handle?.targets.find((t) => t.owner === owner && t.name === param.name)
  const base = target
    ? [target.from, target.to]
    : lined
      ? line!.points.map((p) => p.value)
      : [moving ?? value]
  const places = base.map((x) => place(param, x))
  const reach = (movers ?? []).reduce((r, m) => r + Math.abs(depthOf(m, owner, param.name)), 0)
  const label = `${param.label} of ${of}`
  return (
    <Scale
      param={param}
      value={v}
      onMove={set}
      moved={
        follows
          ? { low: Math.max(0, Math.min(...places) - reach), high: Math.min(1, Math.max(...places) + reach) }
          : null
      }
      mover={handle ? 'handle' : lined ? 'line' : 'mover'}
      onLine={param.structural ? undefined : () => void openLine(owner, param.name, label)}
      onMoves={
        param.structural
          ? undefined
          : () => setView({ dialog: { kind: 'moves', owner, param, label, value } })
      }
      {...look}
    />
  )
}
