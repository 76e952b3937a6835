import { type PointerEvent, useRef, useState } from 'react'
import type { PassageSpan, Timeline } from '../api/types'
import { opens } from '../controls/menuAt'
import type { Lens } from '../document/time'
import { gridStep, type Range, useView } from '../session/view'
import * as passages from './actions'
import { extent, freeFrom, freeTo } from './extent'
import { scale } from '../theme/size'

/** How high the row of bars and passages is. */
const BAND = 24

const EDGE = 6
const MAKE = 112 // the button that makes one

/** Passages along the ruler: dragged to move them, at an end to stretch them. */
export function PassageBand(p: {
  timeline: Timeline
  lens: Lens
  mark: Range | null
  /** Of the ruler, in pixels. */
  width: number
}) {
  const { timeline, lens, mark } = p
  return (
    <div className="pointer-events-none absolute inset-x-0 bottom-0" style={{ height: BAND }}>
      {mark && (
        <button
          className="pointer-events-auto absolute top-0 h-6 rounded-full border px-2 text-small whitespace-nowrap"
          style={{
            left: freeFrom(
              Math.max(2, lens.x(mark.from)),
              MAKE,
              timeline.passages.map((x) => extent(x, lens, p.width)),
            ),
            borderColor: 'var(--deep)',
            background: 'var(--card)',
          }}
          onPointerDown={(e) => e.stopPropagation()}
          onClick={() => passages.openMaker()}
        >
          Make a passage <kbd className="soft">⇧L</kbd>
        </button>
      )}
      {timeline.passages.map((x) => (
        <Band key={x.id} x={x} lens={lens} room={p.width} others={timeline.passages} />
      ))}
    </div>
  )
}

type Drag = { what: 'move' | 'from' | 'to'; at: number; by: number }

type BandProps = { x: PassageSpan; lens: Lens; room: number; others: PassageSpan[] }

function Band({ x, lens, room, others }: BandProps) {
  const selected = useView((v) => v.stage === x.id)
  const [drag, setDrag] = useState<Drag | null>(null)
  const moved = useRef(false)
  const by = (drag?.by ?? 0) * lens.perPixel
  const from = x.from + (drag && drag.what !== 'to' ? by : 0)
  const to = x.to + (drag && drag.what !== 'from' ? by : 0)
  const at = extent(x, lens, room, from, to)
  const grab = (e: PointerEvent<HTMLButtonElement>) => {
    e.stopPropagation()
    const box = e.currentTarget.getBoundingClientRect()
    const px = e.clientX - box.left
    const what = px > box.width - EDGE ? 'to' : px < EDGE ? 'from' : 'move'
    e.currentTarget.setPointerCapture(e.pointerId)
    moved.current = false
    setDrag({ what, at: e.clientX, by: 0 })
  }
  return (
    <>
      <button
        className="pointer-events-auto absolute top-0 h-6 touch-none text-left"
        style={{
          left: at.left - (24 - Math.min(24, at.width)) / 2,
          width: Math.max(24, at.width),
          cursor: 'grab',
        }}
        title={`${x.name}${x.off ? ', off' : ''}: drag to move it, at an end to stretch it`}
        aria-label={`Passage ${x.name}`}
        onPointerDown={(e) => e.button === 0 && grab(e)}
        onContextMenu={opens(`passage ${x.id}`, () => passages.show(x.id, x.rows[0]))}
        onPointerMove={(e) => {
          if (!drag) return
          const px = (e.clientX - drag.at) / scale()
          if (Math.abs(px) > 3) moved.current = true
          if (moved.current) setDrag({ ...drag, by: px })
        }}
        onPointerUp={() => {
          if (drag && moved.current) void passages.setRange(x, from, to)
          setDrag(null)
        }}
        onClick={() => {
          if (!moved.current) passages.show(x.id, x.rows[0])
        }}
        onKeyDown={(e) => {
          const d = e.key === 'ArrowLeft' ? -1 : e.key === 'ArrowRight' ? 1 : 0
          if (!d) return
          e.preventDefault()
          e.stopPropagation()
          void passages.stepRange(x, d * gridStep(), e.shiftKey)
        }}
      >
        <span
          className="mx-auto block h-5 overflow-hidden border px-1.5 text-small leading-[17px] whitespace-nowrap"
          style={{
            width: at.width,
            borderColor: 'var(--deep)',
            borderWidth: selected ? 2 : 1,
            borderStyle: x.off ? 'dashed' : 'solid',
            borderRadius: '0 10px 10px 0',
            background: selected ? 'var(--shoal-3)' : 'var(--shoal-2)',
            color: 'var(--ink)',
          }}
        >
          {at.inside && x.name}
        </span>
      </button>
      {!at.inside && (
        <span
          className="pointer-events-none absolute top-1 truncate text-small italic leading-[16px] whitespace-nowrap"
          style={{ left: at.name, maxWidth: freeTo(at.name, x, others, lens) }}
        >
          {x.name}
        </span>
      )}
    </>
  )
}
