import { replaceEqualDeep } from '@tanstack/react-query'
import { useState } from 'react'
import type { LineValue, Param } from '../api/types'
import { moveTogether } from '../bench/several'
import { openLine } from '../lines/actions'
import { useLineValue } from '../lines/values'
import { isMoved } from '../moves/actions'
import { useSession } from '../session/store'
import { setView } from '../session/view'

/** A parameter by its address: where it stands now, what moves it, and how it is set. What a hand moves here is heard
    at once and stored when it rests. */
export function useParam(owner: string, param: Param, value: number, of: string) {
  const moving = useSession((s) => s.moving[`${owner} ${param.name}`])
  const isLed = useSession((s) => isMoved(s.project, owner, param.name))
  const [now, setNow] = useState<LineValue | null>(null)
  useLineValue(owner, param.name, (v) => setNow((before) => replaceEqualDeep(before, v)), isLed)
  const moved = isLed ? now : null
  const theirs = useSession((s) => s.theirs[`${owner} ${param.name}`])
  const refused = useSession((s) => s.refusals.includes(`${owner} ${param.name}`))
  const label = `${param.label} of ${of}`
  return {
    // under a hand it is where the hand is, except where a handle or a mover carries it on
    value: (moving !== undefined && (!moved || moved.by === 'line') ? moving : moved?.value) ?? value,
    moved,
    theirs,
    refused,
    set: (v: number, rest: boolean) => moveTogether(owner, param.name, v, label, rest),
    onLine: param.structural ? undefined : () => void openLine(owner, param.name, label),
    onMoves: param.structural ? undefined : () => setView({ dialog: { kind: 'moves', owner, param, label } }),
  }
}

/** Whether its values have an order, and can be set along a ruler: note lengths have, shapes have not. */
export const isRuled = (p: Param) =>
  p.taper !== 'switch' && (p.taper !== 'choice' || /^\d+\/\d+$/.test(p.choices?.[0] ?? ''))
