import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import type { Param } from '../api/types'
import { notice } from '../live/session'
import { at, figure, parted, place, read, round, said, step } from './format'

type Props = {
  param: Param
  value: number
  onMove: (v: number, rest: boolean) => void
  /** Narrow scales stand on the board: no label, no figure beside them. */
  narrow?: boolean
  label?: string
  /** Compact scales stand in lists: little room for the figure, and a caption in place of the name. */
  compact?: boolean
  caption?: string
  /** It is moved between these places along the travel, and by what. */
  moved?: { low: number; high: number; by: 'line' | 'handle' | 'mover' | 'passage' } | null
  /** Opens its line, or all that moves it; only what can be moved has them. */
  onLine?: () => void
  onMoves?: () => void
}

const ticks = 21

/** A scale: a ruler with a pointer and a figure. Drag sideways (Shift for fine), arrows, type, double click resets. */
export function Scale({
  param,
  value,
  onMove,
  narrow,
  label,
  compact,
  caption,
  moved,

  onLine,
  onMoves,
}: Props) {
  const ruler = useRef<SVGSVGElement>(null)
  const grip = useRef<{ x: number; at: number } | null>(null)
  const [typing, setTyping] = useState(false)
  const x = place(param, value)
  const name = label ?? param.label
  const shown = figure(param, value)
  const [number, unit] = parted(param, value)

  const down = (e: PointerEvent) => {
    if (e.button !== 0) return
    e.currentTarget.setPointerCapture(e.pointerId)
    const box = ruler.current!.getBoundingClientRect()
    const to = (e.clientX - box.left) / box.width
    // a press near the pointer takes hold of it; elsewhere it jumps there
    const from = Math.abs(to - x) < 0.06 ? x : to
    if (from !== x) onMove(round(param, at(param, from)), false)
    grip.current = { x: e.clientX, at: from }
  }
  const drag = (e: PointerEvent) => {
    const g = grip.current
    if (!g) return
    const box = ruler.current!.getBoundingClientRect()
    g.at = Math.min(1, Math.max(0, g.at + ((e.clientX - g.x) / box.width) * (e.shiftKey ? 0.1 : 1)))
    g.x = e.clientX
    onMove(round(e.shiftKey ? { ...param, digits: param.digits + 1 } : param, at(param, g.at)), false)
  }
  const up = () => {
    if (!grip.current) return
    grip.current = null
    onMove(value, true)
  }
  /** Takes what was typed or pasted; what is out of range is brought into it, with a word. */
  const take = (text: string): boolean => {
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
  const key = (e: KeyboardEvent) => {
    if ((e.ctrlKey || e.metaKey) && (e.key === 'c' || e.key === 'v')) {
      e.preventDefault()
      e.stopPropagation()
      if (e.key === 'c') void navigator.clipboard.writeText(said(param, value).replace('−', '-'))
      else
        void navigator.clipboard.readText().then((t) => {
          if (!take(t)) notice(`“${t.slice(0, 40)}” is no value for ${name}.`, 'refused')
        })
      return
    }
    if (e.ctrlKey || e.metaKey || e.altKey) return
    const presses: Record<string, number> = { ArrowRight: 1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }
    if (e.key.toLowerCase() === 'x' && onLine) {
      e.preventDefault()
      e.stopPropagation()
      return onLine()
    }
    if (e.key.toLowerCase() === 'm' && onMoves) {
      e.preventDefault()
      e.stopPropagation()
      return onMoves()
    }
    let v: number | null = null
    if (e.key in presses) v = step(param, value, presses[e.key]! * (e.shiftKey ? 0.1 : 1))
    else if (e.key === 'Home') v = param.min
    else if (e.key === 'End') v = param.max
    else if (e.key === 'Backspace' || e.key === 'Delete') v = param.default
    else if (e.key === '0' && param.unit === 'dB') v = 0
    else if (e.key === 'Enter') {
      setTyping(true)
      e.preventDefault()
      e.stopPropagation()
      return
    }
    if (v === null) return
    e.preventDefault()
    e.stopPropagation()
    onMove(Math.min(Math.max(v, param.min), param.max), false)
  }

  const drawn = (
    <svg
      ref={ruler}
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuemin={param.min}
      aria-valuemax={param.max}
      aria-valuenow={value}
      aria-valuetext={said(param, value)}
      className={`${narrow ? 'h-5' : 'h-[15px]'} block w-full cursor-ew-resize touch-none overflow-visible`}
      viewBox="0 0 100 20"
      preserveAspectRatio="none"
      onPointerDown={down}
      onPointerMove={drag}
      onPointerUp={up}
      onPointerCancel={up}
      onDoubleClick={() => onMove(param.default, true)}
      onKeyDown={key}
      onWheel={(e) => {
        // only with the focus: elsewhere the wheel scrolls
        if (document.activeElement !== e.currentTarget) return
        onMove(step(param, value, (e.deltaY < 0 ? 1 : -1) * (e.shiftKey ? 0.1 : 1)), false)
      }}
    >
      <rect x="0" y="0" width="100" height="20" fill="transparent" />
      {moved && (
        <rect
          x={moved.low * 100}
          y={7}
          width={Math.max(1, (moved.high - moved.low) * 100)}
          height={12}
          fill="var(--shoal-3)"
          opacity={0.8}
        />
      )}
      {Array.from({ length: ticks }, (_, i) => (
        <line
          key={i}
          x1={(i * 100) / (ticks - 1)}
          x2={(i * 100) / (ticks - 1)}
          y1={i % 5 === 0 ? 9 : 13}
          y2={18}
          stroke="var(--soft)"
          strokeWidth={1}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      <line
        x1={x * 100}
        x2={x * 100}
        y1={8}
        y2={18}
        stroke="var(--deep)"
        strokeWidth={2}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  )
  const pointer = (
    <span
      aria-hidden
      className="pointer-events-none absolute top-0 h-0 w-0"
      style={{
        left: `calc(${x * 100}% - 4.5px)`,
        borderLeft: '4.5px solid transparent',
        borderRight: '4.5px solid transparent',
        borderTop: `${narrow ? 8 : 7}px solid var(--ink)`,
      }}
    />
  )
  if (narrow) {
    return (
      <span className="relative inline-block w-full" title={`${name} ${said(param, value)}`}>
        {drawn}
        {pointer}
      </span>
    )
  }
  return (
    <div
      className={`grid items-end gap-x-1.5 ${compact ? 'grid-cols-[minmax(0,1fr)_48px]' : 'grid-cols-[minmax(0,1fr)_76px]'}`}
      data-says={param.says}
    >
      <div className="min-w-0">
        <div
          className={`truncate leading-[13px] ${compact ? 'soft text-[11px]' : 'text-[12px]'}`}
          title={param.says}
        >
          {caption ?? name}
          {moved && (
            <button
              className="water-label ml-1 text-[11px] underline"
              tabIndex={-1}
              title={
                moved.by === 'line'
                  ? 'Its line moves it. While it plays, hold the scale to take it down; stopped, a move puts a point at the playhead. Click to see the line ( X ).'
                  : moved.by === 'handle'
                    ? 'A handle gives it its value: move the handle. Click to see all that moves it ( M ).'
                    : moved.by === 'passage'
                      ? 'A passage has it as long as it lasts; what is set by hand is heard behind it. Click to see all that moves it ( M ).'
                      : 'A mover moves it around where it is set. Click to see all that moves it ( M ).'
              }
              onClick={moved.by === 'line' ? onLine : onMoves}
            >
              {moved.by}
            </button>
          )}
        </div>
        <span className="relative block">
          {drawn}
          {pointer}
        </span>
      </div>
      {typing ? (
        <input
          autoFocus
          className="figure input input-xs w-full text-right"
          aria-label={`${name}, type a value`}
          defaultValue={shown.replace('−', '-')}
          onFocus={(e) => e.target.select()}
          onBlur={() => setTyping(false)}
          onKeyDown={(e) => {
            e.stopPropagation()
            if (e.key === 'Escape') setTyping(false)
            if (e.key !== 'Enter') return
            if (take(e.currentTarget.value)) setTyping(false)
            else e.currentTarget.classList.add('input-error')
          }}
        />
      ) : (
        <button
          className={`figure h-6 truncate text-right hover:underline ${compact ? 'text-[12px]' : 'text-[13px]'}`}
          title={`${param.says} Click to type a value.`}
          onClick={() => setTyping(true)}
        >
          {compact ? shown : number} {!compact && <span className="soft text-[11px]">{unit}</span>}
        </button>
      )}
    </div>
  )
}
