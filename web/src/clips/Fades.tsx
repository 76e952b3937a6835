import { type PointerEvent, useRef, useState } from 'react'
import type { Clip } from '../api/types'
import type { Lens } from '../document/time'
import { scale } from '../theme/size'
import * as actions from './actions'

type Props = { clip: Clip; lens: Lens; height: number; open: boolean }
type Which = 'fadeIn' | 'fadeOut'

/** A clip's fades, drawn over its sound; open, they are taken at their upper corners: sideways for how long, up and down
    for how they are bent. */
export function Fades({ clip, lens, height, open }: Props) {
  return (['fadeIn', 'fadeOut'] as const).map(
    (which) =>
      (open || clip[which] >= lens.perPixel) && (
        <FadeEdge key={which} which={which} clip={clip} lens={lens} height={height} open={open} />
      ),
  )
}

function FadeEdge({ which, clip, lens, height, open }: Props & { which: Which }) {
  const from = useRef<{ x: number; y: number } | null>(null)
  const [drag, setDrag] = useState<{ frames: number; bend: number } | null>(null)
  const isIn = which === 'fadeIn'
  const other = isIn ? clip.fadeOut : clip.fadeIn
  const frames = drag?.frames ?? clip[which]
  const bend = drag?.bend ?? (isIn ? clip.inBend : clip.outBend) ?? 0
  const shape = (isIn ? clip.inShape : clip.outShape) ?? 's'
  const width = frames / lens.perPixel
  const at = (e: PointerEvent) => {
    const dx = ((e.clientX - from.current!.x) / scale()) * lens.perPixel * (isIn ? 1 : -1)
    const dy = (from.current!.y - e.clientY) / scale()
    return {
      frames: Math.round(Math.min(Math.max(0, clip[which] + dx), clip.frames - other)),
      bend: Math.min(1, Math.max(-1, ((isIn ? clip.inBend : clip.outBend) ?? 0) + dy / height)),
    }
  }
  const set = (to: { frames: number; bend: number }) =>
    void actions.set(isIn ? 'Fade in' : 'Fade out', [clip], () =>
      isIn ? { fadeIn: to.frames, inBend: to.bend } : { fadeOut: to.frames, outBend: to.bend },
    )
  const step = (by: number) =>
    set({ frames: Math.round(Math.min(Math.max(0, frames + by), clip.frames - other)), bend })
  return (
    <>
      {width >= 1 && (
        <svg
          className="pointer-events-none absolute top-0"
          style={{ [isIn ? 'left' : 'right']: 0, transform: isIn ? undefined : 'scaleX(-1)' }}
          width={width}
          height={height}
          aria-hidden
        >
          <path d={`${curve(width, height, shape, bend)}L0 0Z`} fill="var(--paper)" opacity={0.75} />
          <path d={curve(width, height, shape, bend)} fill="none" stroke="var(--ink)" />
        </svg>
      )}
      {open && (
        <span
          role="slider"
          tabIndex={0}
          aria-label={`${isIn ? 'Fade in' : 'Fade out'} of ${clip.name}`}
          aria-valuemin={0}
          aria-valuemax={clip.frames - other}
          aria-valuenow={frames}
          title={`${isIn ? 'Fade in' : 'Fade out'}: drag sideways for how long, up and down to bend it`}
          className="absolute -top-1 z-10 grid h-6 w-6 cursor-ew-resize touch-none place-items-center"
          style={{ [isIn ? 'left' : 'right']: width - 12 }}
          onPointerDown={(e) => {
            e.stopPropagation()
            e.currentTarget.setPointerCapture(e.pointerId)
            from.current = { x: e.clientX, y: e.clientY }
          }}
          onPointerMove={(e) => from.current && setDrag(at(e))}
          onPointerUp={(e) => {
            if (from.current) set(at(e))
            from.current = null
            setDrag(null)
          }}
          onKeyDown={(e) => {
            const by = e.key === 'ArrowRight' ? 480 : e.key === 'ArrowLeft' ? -480 : 0
            if (!by) return
            e.preventDefault()
            e.stopPropagation()
            step(isIn ? by : -by)
          }}
        >
          <span className="h-2 w-2 rounded-full border-[1.5px] border-[var(--ink)] bg-[var(--card)]" />
        </span>
      )}
    </>
  )
}

/** The gain of a fade in as it is drawn, from the lower left corner on. */
function curve(width: number, height: number, shape: string, bend: number): string {
  const k = (1 - 0.9 * bend) / (1 + 0.9 * bend)
  const n = Math.max(2, Math.min(32, Math.round(width / 2)))
  const points = Array.from({ length: n + 1 }, (_, i) => {
    const x = i / n
    const b = x / (x + (1 - x) * k)
    const y =
      shape === 'gain'
        ? b
        : shape === 'power'
          ? Math.sin((Math.PI / 2) * b)
          : 0.5 - 0.5 * Math.cos(Math.PI * b)
    return `${(x * width).toFixed(1)} ${((1 - y) * height).toFixed(1)}`
  })
  return `M${points.join('L')}`
}
