import { useRef } from 'react'
import { setView, useView, view } from '../session/view'
import { scale } from '../theme/size'

export const LEAST = 232
const MOST = 520

const set = (height: number) => setView({ benchHeight: Math.round(Math.min(MOST, Math.max(LEAST, height))) })

/** The edge of the bench: dragged up and down, or moved by arrows; a double click brings it back. */
export function BenchGrip() {
  const height = useView((v) => v.benchHeight)
  const held = useRef<{ y: number; height: number } | null>(null)
  return (
    <div
      role="separator"
      tabIndex={0}
      aria-orientation="horizontal"
      aria-label="Height of the bench"
      aria-valuenow={height}
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      title="Drag: the bench is higher or lower"
      className="group absolute inset-x-0 -top-[13px] z-30 mx-auto grid h-6 w-24 cursor-ns-resize touch-none place-items-center"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId)
        held.current = { y: e.clientY, height: view().benchHeight }
      }}
      onPointerMove={(e) => held.current && set(held.current.height + (held.current.y - e.clientY) / scale())}
      onPointerUp={() => (held.current = null)}
      onPointerCancel={() => (held.current = null)}
      onDoubleClick={() => set(250)}
      onKeyDown={(e) => {
        const by = { ArrowUp: 12, ArrowDown: -12 }[e.key]
        if (!by) return
        e.preventDefault()
        e.stopPropagation()
        set(height + by)
      }}
    >
      <span className="h-1.5 w-10 rounded-full group-hover:w-14" style={{ background: 'var(--ink)' }} />
    </div>
  )
}
