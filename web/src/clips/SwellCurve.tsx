import { type PointerEvent, useState } from 'react'
import type { Clip } from '../api/types'
import type { Lens } from '../document/time'
import { within } from '../theme/size'
import * as actions from './actions'
import { swellAt } from './wave'

type Props = { clip: Clip; start: number; left: number; lens: Lens; height: number; open: boolean }
type Point = NonNullable<Clip['swell']>[number]

const TOP = 12 // dB at the upper edge
const LOW = -36 // and at the lower

/** A clip's own curve of gain over its sound. Open, a double click puts a point, points are dragged, Delete takes one
    off. */
export function SwellCurve({ clip, start, left, lens, height, open }: Props) {
  const [moving, setMoving] = useState<Point[] | null>(null)
  const points = moving ?? clip.swell ?? []
  if (!points.length && !open) return null
  const y = (db: number) => ((TOP - Math.max(LOW, db)) / (TOP - LOW)) * height
  const x = (frame: number) => lens.x(start + frame - clip.offset) - left
  const store = (next: Point[]) => actions.set('Swell of', [clip], () => ({ swell: next }))
  const seen = points.filter((p) => p.at >= clip.offset && p.at <= clip.offset + clip.frames)
  const placed = (e: PointerEvent | React.MouseEvent, box: Element, i?: number): Point[] => {
    const at = within(e, box)
    const frame = Math.round(lens.frame(left + at.x) - start + clip.offset)
    const gain = Math.round((TOP - (at.y / height) * (TOP - LOW)) * 2) / 2
    // one that is there already stays between its neighbours
    const least = i ? Math.max(clip.offset, points[i - 1]!.at) : clip.offset
    const most = Math.min(clip.offset + clip.frames, (i !== undefined && points[i + 1]?.at) || Infinity)
    const p = {
      at: Math.min(Math.max(frame, least), most),
      gain: gain <= LOW ? -60 : Math.min(TOP, gain),
    }
    if (i !== undefined) return points.map((q, k) => (k === i ? { ...q, ...p } : q))
    return [...points, p].sort((a, b) => a.at - b.at)
  }
  const whole = { ...clip, swell: points }
  const line = [clip.offset, ...seen.map((p) => p.at), clip.offset + clip.frames]
    .flatMap((f, i, all) => {
      const before = i > 0 && seen[i - 2]?.step ? [`${x(f)} ${y(seen[i - 2]!.gain)}`] : []
      return [...before, `${x(f)} ${y(i > 0 && i < all.length - 1 ? seen[i - 1]!.gain : swellAt(whole, f))}`]
    })
    .join('L')
  return (
    <svg
      className="absolute inset-0 overflow-visible"
      width="100%"
      height={height}
      style={{ pointerEvents: 'none' }}
      role="group"
      aria-label={`Swell of ${clip.name}`}
    >
      {points.length > 0 && <path d={`M${line}`} fill="none" stroke="var(--ink)" strokeWidth={1.5} />}
      {open && (
        <path
          d={points.length ? `M${line}` : `M0 ${y(0)}H9999`}
          fill="none"
          stroke="transparent"
          strokeWidth={14}
          style={{ pointerEvents: 'stroke' }}
          onPointerDown={(e) => e.stopPropagation()} // it is not the clip that is taken
          onDoubleClick={(e) => {
            e.stopPropagation()
            void store(placed(e, e.currentTarget.ownerSVGElement!))
          }}
        >
          <title>The clip's swell, its own curve of gain: double click puts a point</title>
        </path>
      )}
      {open &&
        points.map((p, i) => (
          <circle
            key={i}
            cx={x(p.at)}
            cy={y(p.gain)}
            r={4}
            tabIndex={0}
            role="slider"
            aria-label={`Swell point ${i + 1} of ${clip.name}`}
            aria-valuemin={-60}
            aria-valuemax={24}
            aria-valuenow={p.gain}
            fill="var(--card)"
            stroke="var(--ink)"
            strokeWidth={8}
            paintOrder="fill"
            strokeOpacity={0}
            className="cursor-move touch-none"
            style={{ pointerEvents: 'all', outlineOffset: 3 }}
            onPointerDown={(e) => {
              e.stopPropagation()
              e.currentTarget.setPointerCapture(e.pointerId)
              setMoving(points)
            }}
            onPointerMove={(e) => moving && setMoving(placed(e, e.currentTarget.ownerSVGElement!, i))}
            onPointerUp={() => {
              if (moving) void store(moving).then(() => setMoving(null))
            }}
            onKeyDown={(e) => {
              const by = e.key === 'ArrowUp' ? 0.5 : e.key === 'ArrowDown' ? -0.5 : 0
              if (e.key === 'Delete' || e.key === 'Backspace') void store(points.filter((_, k) => k !== i))
              else if (e.key.toLowerCase() === 'h')
                void store(points.map((q, k) => (k === i ? { ...q, step: !q.step } : q)))
              else if (by) void store(points.map((q, k) => (k === i ? { ...q, gain: q.gain + by } : q)))
              else return
              e.preventDefault()
              e.stopPropagation()
            }}
          >
            <title>{`${p.gain} dB. Drag it; H holds it until the next; Delete takes it off.`}</title>
          </circle>
        ))}
      {open &&
        points.map((p, i) => (
          <circle
            key={`ring ${i}`}
            cx={x(p.at)}
            cy={y(p.gain)}
            r={4}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
        ))}
    </svg>
  )
}
