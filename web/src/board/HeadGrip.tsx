import { useRef } from 'react'
import { setView, useView, view } from '../session/view'
import { scale } from '../theme/size'

const LEAST = 132
const MOST = 360

const set = (width: number) => setView({ headWidth: Math.round(Math.min(MOST, Math.max(LEAST, width))) })

/** The edge of the heads of rows: dragged wider for long names; a double click brings it back. */
export function HeadGrip() {
  const width = useView((v) => v.headWidth)
  const held = useRef<{ x: number; width: number } | null>(null)
  return (
    <div
      role="separator"
      tabIndex={0}
      aria-orientation="vertical"
      aria-label="Width of the heads of rows"
      aria-valuenow={width}
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      title="Drag: the heads of rows are wider or narrower"
      className="group absolute inset-y-0 -right-3 z-20 grid w-6 cursor-ew-resize touch-none place-items-center"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId)
        held.current = { x: e.clientX, width: view().headWidth }
      }}
      onPointerMove={(e) => held.current && set(held.current.width + (e.clientX - held.current.x) / scale())}
      onPointerUp={() => (held.current = null)}
      onPointerCancel={() => (held.current = null)}
      onDoubleClick={() => set(168)}
      onKeyDown={(e) => {
        const by = { ArrowRight: 8, ArrowLeft: -8 }[e.key]
        if (!by) return
        e.preventDefault()
        e.stopPropagation()
        set(width + by)
      }}
    >
      <span className="h-full w-px group-hover:w-1" style={{ background: 'var(--hair)' }} />
    </div>
  )
}
