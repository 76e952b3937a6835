import type { KeyboardEvent, PointerEvent, RefObject } from 'react'
import type { Param } from '../api/types'
import { place, said, step } from './format'

const ticks = 21

type Props = {
  ruler: RefObject<SVGSVGElement | null>
  param: Param
  value: number
  name: string
  theirs?: string
  refused?: boolean
  /** It is moved between these places along the travel. */
  moved?: { low: number; high: number } | null
  down: (e: PointerEvent) => void
  drag: (e: PointerEvent) => void
  up: () => void
  onKey: (e: KeyboardEvent<SVGSVGElement>) => void
  onMove: (v: number, rest: boolean) => void
}

/** The ruler of a scale with its pointer. */
export function ScaleRuler({
  ruler,
  param,
  value,
  name,
  theirs,
  refused,
  moved,
  down,
  drag,
  up,
  onKey,
  onMove,
}: Props) {
  const x = place(param, value)
  return (
    <span className="relative block min-w-0 flex-1">
      <svg
        ref={ruler}
        role="slider"
        tabIndex={0}
        aria-label={name}
        aria-valuemin={param.min}
        aria-valuemax={param.max}
        aria-valuenow={value}
        aria-valuetext={`${said(param, value)}${theirs ? `, just moved by ${theirs}` : ''}${refused ? ', refused' : ''}`}
        data-state={refused ? 'refused' : theirs ? 'theirs' : undefined}
        className={`block h-6 w-full cursor-ew-resize touch-none overflow-visible`}
        viewBox="0 0 100 20"
        preserveAspectRatio="none"
        onPointerDown={down}
        onPointerMove={drag}
        onPointerUp={up}
        onPointerCancel={up}
        onDoubleClick={() => onMove(param.default, true)}
        onKeyDown={onKey}
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
      <span
        aria-hidden
        className="pointer-events-none absolute top-[3px] h-0 w-0"
        style={{
          left: `calc(${x * 100}% - 4.5px)`,
          borderLeft: '4.5px solid transparent',
          borderRight: '4.5px solid transparent',
          borderTop: `8px solid ${refused ? 'var(--loss)' : theirs ? 'var(--live)' : 'var(--ink)'}`,
        }}
      />
    </span>
  )
}
