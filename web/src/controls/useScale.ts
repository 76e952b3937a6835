import { type KeyboardEvent, type MouseEvent, type PointerEvent, type RefObject, useRef } from 'react'
import type { Param } from '../api/types'
import { paste } from '../bench/paste'
import { leaveForStage } from '../keys/focus'
import { copyText } from '../session/clipboard'
import { notice } from '../session/store'
import { openMenu } from './menuAt'
import { useScaleAt } from './scaleMenu'
import { at, place, read, round, said, step } from './format'

type Of = {
  param: Param
  value: number
  name: string
  ruler: RefObject<SVGSVGElement | null>
  /** It hangs: up is more. */
  upright?: boolean
  onMove: (v: number, rest: boolean) => void
  onType: () => void
  /** Takes a note length, by its name, where one can be typed. */
  onNote?: (name: string) => boolean
  onLine?: () => void
  onMoves?: () => void
}

/** What hand and keys do to a scale. */
export function useScale({
  param,
  value,
  name,
  ruler,
  upright,
  onMove,
  onType,
  onNote,
  onLine,
  onMoves,
}: Of) {
  const grip = useRef<{ held: number; at: number } | null>(null)
  const x = place(param, value)

  /** How far along the ruler a pointer is, 0 to 1. */
  const along = (e: PointerEvent) => {
    const box = ruler.current!.getBoundingClientRect()
    return upright ? (box.bottom - e.clientY) / box.height : (e.clientX - box.left) / box.width
  }
  const down = (e: PointerEvent) => {
    if (e.button !== 0) return
    e.currentTarget.setPointerCapture(e.pointerId)
    const to = Math.min(1, Math.max(0, along(e)))
    // a press near the pointer takes hold of it; elsewhere it jumps there
    const from = Math.abs(to - x) < 0.06 ? x : to
    if (from !== x) onMove(round(param, at(param, from)), false)
    grip.current = { held: along(e), at: from }
  }
  const drag = (e: PointerEvent) => {
    const g = grip.current
    if (!g) return
    const now = along(e)
    g.at = Math.min(1, Math.max(0, g.at + (now - g.held) * (e.shiftKey ? 0.1 : 1)))
    g.held = now
    onMove(round(e.shiftKey ? { ...param, digits: param.digits + 1 } : param, at(param, g.at)), false)
  }
  const up = () => {
    if (!grip.current) return
    grip.current = null
    onMove(value, true)
  }
  /** Takes what was typed or pasted; what is out of range is brought into it, with a word. */
  const take = (text: string): boolean => {
    if (onNote?.(text)) return true
    const v = read(param, text)
    if (v === null) return false
    const inside = Math.min(Math.max(v, param.min), param.max)
    if (inside !== v)
      notice(
        `${name} goes from ${said(param, param.min)} to ${said(param, param.max)}: it is now at ${said(param, inside)}.`,
      )
    onMove(inside, true)
    return true
  }
  /** Where a key leads, if it is one of a scale's. */
  const keyed = (e: KeyboardEvent): number | null => {
    const presses: Record<string, number> = upright
      ? { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10 }
      : { ArrowRight: 1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }
    if (e.key in presses) return step(param, value, presses[e.key]! * (e.shiftKey ? 0.1 : 1))
    if (e.key === 'Home') return param.min
    if (e.key === 'End') return param.max
    if (e.key === 'Backspace' || e.key === 'Delete') return param.default
    return e.key === '0' && param.unit === 'dB' ? 0 : null
  }
  const key = (e: KeyboardEvent<SVGSVGElement>) => {
    const own = (run: () => void) => {
      e.preventDefault()
      e.stopPropagation()
      run()
    }
    if (e.ctrlKey || e.metaKey) {
      if (e.key === 'c') own(() => void copyText(said(param, value).replace('−', '-')))
      if (e.key === 'v') own(() => void paste({ name, take }))
      return
    }
    if (e.altKey) return
    if (e.key === 'Escape' && leaveForStage(e.currentTarget)) return own(() => undefined)
    if (e.key.toLowerCase() === 'x' && onLine) return own(onLine)
    if (e.key.toLowerCase() === 'm' && onMoves) return own(onMoves)
    if (e.key === 'Enter') return own(onType)
    const v = keyed(e)
    if (v !== null) own(() => onMove(Math.min(Math.max(v, param.min), param.max), false))
  }
  const menu = (e: MouseEvent) => {
    e.stopPropagation()
    useScaleAt.setState({
      at: {
        param,
        value,
        focus: () => ruler.current?.focus(),
        set: (v) => onMove(v, true),
        type: onType,
        line: onLine,
        moves: onMoves,
      },
    })
    openMenu('scale', e)
  }
  return { down, drag, up, take, key, menu }
}
