import { useRef, useState } from 'react'
import type { Param } from '../api/types'
import { ScaleFigure } from './ScaleFigure'
import { ScaleRuler } from './ScaleRuler'
import { said } from './format'
import { useScale } from './useScale'

type Props = {
  param: Param
  value: number
  onMove: (v: number, rest: boolean) => void
  /** Narrow scales stand on the board and in lists: no label, and little room for the figure. */
  narrow?: boolean
  label?: string
  /** Compact scales stand in lists: little room for the figure, and a caption in place of the name. */
  compact?: boolean
  caption?: string
  /** It is moved between these places along the travel, and by what. */
  moved?: { low: number; high: number; by: 'line' | 'handle' | 'mover' | 'passage' } | null
  /** Who else has just moved it; whether the last change was refused. */
  theirs?: string
  refused?: boolean
  /** Opens its line, or all that moves it; only what can be moved has them. */
  onLine?: () => void
  onMoves?: () => void
  onNote?: (name: string) => boolean
}

const movedBy = {
  line:
    'Its line moves it. While it plays, hold the scale to take it down; ' +
    'stopped, a move puts a point at the playhead. Click to see the line ( X ).',
  handle: 'A handle gives it its value: move the handle. Click to see all that moves it ( M ).',
  passage:
    'A passage has it as long as it lasts; what is set by hand is heard behind it. Click to see all that moves it ( M ).',
  mover: 'A mover moves it around where it is set. Click to see all that moves it ( M ).',
}

/** A scale: a ruler with a pointer and a figure. Drag sideways (Shift for fine), arrows, type, double click resets. */
export function Scale(p: Props) {
  const { param, value, onMove, narrow, compact, moved } = p
  const ruler = useRef<SVGSVGElement>(null)
  const [typing, setTyping] = useState(false)
  const name = p.label ?? param.label
  const { down, drag, up, take, key, menu } = useScale({
    param,
    value,
    name,
    ruler,
    onMove,
    onType: () => setTyping(true),
    onLine: p.onLine,
    onMoves: p.onMoves,
    onNote: p.onNote,
  })
  const drawn = (
    <ScaleRuler
      {...{ ruler, param, value, name, moved, down, drag, up, onMove }}
      theirs={p.theirs}
      refused={p.refused}
      onKey={key}
    />
  )
  const figure = (
    <ScaleFigure
      {...{ param, value, name, typing, take }}
      onTyping={setTyping}
      small={narrow || compact}
      back={() => ruler.current?.focus()}
    />
  )
  const by = moved && (
    <button
      className="water-label relative z-10 -my-1 h-6 text-small underline"
      tabIndex={-1}
      title={movedBy[moved.by]}
      onClick={moved.by === 'line' ? p.onLine : p.onMoves}
    >
      {moved.by}
    </button>
  )
  if (narrow && p.caption)
    return (
      <span className="flex items-center gap-1.5" data-says={param.says} onContextMenu={menu}>
        <span className="soft">{p.caption}</span>
        {by}
        <span className="w-[66px] shrink-0">{drawn}</span>
        <span className="min-w-[46px] shrink-0">{figure}</span>
      </span>
    )
  if (narrow)
    return (
      <span
        className="grid w-full grid-cols-[minmax(0,1fr)_46px] items-center gap-1"
        title={`${name} ${said(param, value)}`}
        onContextMenu={menu}
      >
        {drawn}
        {figure}
      </span>
    )
  return (
    <div className="relative min-h-[37px] min-w-0" data-says={param.says} onContextMenu={menu}>
      <div className="flex min-h-4 flex-wrap items-center gap-x-1">
        <span
          className={`min-w-0 leading-4 [overflow-wrap:anywhere] ${compact ? 'soft text-small' : 'text-label'}`}
          title={param.says}
        >
          {p.caption ?? name}
        </span>
        {p.theirs && (
          <span className="truncate text-small font-semibold" style={{ color: 'var(--live)' }}>
            {p.theirs}
          </span>
        )}
        {by}
        <span className="relative z-10 -my-1 ml-auto shrink-0">{figure}</span>
      </div>
      <div className="-mt-[3px]">{drawn}</div>
    </div>
  )
}
