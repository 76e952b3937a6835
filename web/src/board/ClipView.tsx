import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import type { Clip } from '../api/types'
import type { Lens } from '../document/time'
import { useCarry } from './useClipCarry'

const FRAMES = 512 // audiofile.OverviewFrames

async function overview(hash: string): Promise<Uint8Array> {
  const r = await fetch(`/api/audio/${hash}/overview`)
  if (!r.ok) throw new Error('The overview cannot be fetched.')
  return new Uint8Array(await r.arrayBuffer())
}

/** A clip as nested depth contours: peak outside, RMS inside. */
export function ClipView({
  clip,
  row,
  start,
  lens,
  width,
  height,
}: {
  clip: Clip
  row: string
  start: number
  lens: Lens
  width: number
  height: number
}) {
  const { data, isError } = useQuery({
    queryKey: ['overview', clip.audio],
    queryFn: () => overview(clip.audio),
    staleTime: Infinity,
  })
  const canvas = useRef<HTMLCanvasElement>(null)
  const [theme, setTheme] = useState(0)
  useEffect(() => {
    const f = () => setTheme((n) => n + 1)
    window.addEventListener('shoal-theme', f)
    return () => window.removeEventListener('shoal-theme', f)
  }, [])
  const left = lens.x(start)
  const right = lens.x(start + clip.frames)
  const from = Math.max(0, left)
  const to = Math.min(width, right)
  useEffect(() => {
    const el = canvas.current
    if (!el || !data || to <= from) return
    const w = Math.ceil(to - from)
    const dense = Math.min(devicePixelRatio || 1, 2)
    el.width = w * dense
    el.height = height * dense
    const g = el.getContext('2d')!
    g.scale(dense, dense)
    const css = getComputedStyle(document.documentElement)
    const gain = 10 ** (clip.gain / 20)
    const contour = (which: 0 | 1, scale: number, colour: string) => {
      g.fillStyle = css.getPropertyValue(colour)
      g.beginPath()
      const ys: number[] = []
      for (let x = 0; x < w; x++) {
        const a = (lens.frame(from + x) - start + clip.offset) / FRAMES
        const b = (lens.frame(from + x + 1) - start + clip.offset) / FRAMES
        let top = 0
        for (
          let k = Math.max(0, Math.floor(a));
          k < Math.max(Math.floor(a) + 1, b) && 2 * k + 1 < data.length;
          k++
        ) {
          top = Math.max(top, data[2 * k + which]!)
        }
        // square-root values: quiet sounds stay visible
        ys.push(Math.min((top / 255) * Math.sqrt(gain) * scale, 1) * (height / 2 - 2))
      }
      ys.forEach((y, x) => g.lineTo(x, height / 2 - y))
      for (let x = w - 1; x >= 0; x--) g.lineTo(x, height / 2 + ys[x]!)
      g.fill()
    }
    contour(0, 1.15, '--shoal-2')
    contour(0, 0.85, '--shoal-3')
    contour(1, 0.95, '--deep')
    g.fillStyle = css.getPropertyValue('--deep')
    g.fillRect(0, height / 2 - 0.5, w, 1)
  }, [data, clip, start, lens, from, to, height, theme])
  const hand = useCarry(clip, row, lens)
  if (to <= from) return null
  return (
    <div
      data-clip={clip.id}
      tabIndex={0}
      role="group"
      aria-label={`${clip.name}, a clip`}
      className="absolute touch-none"
      style={{
        left: from,
        width: to - from,
        top: 1,
        height: Math.max(24, height),
        transform: hand.by ? `translateX(${hand.by}px)` : undefined,
        opacity: hand.by ? 0.75 : undefined,
        zIndex: hand.by ? 5 : undefined,
      }}
      title={`${clip.name}. Drag it along the row: Alt leaves the grid, with Ctrl it is a copy. Arrow keys move it, Delete removes it.`}
      onPointerDown={hand.down}
      onPointerMove={hand.drags}
      onPointerUp={hand.up}
      onPointerCancel={hand.cancel}
      onKeyDown={hand.key}
    >
      <canvas
        ref={canvas}
        className="rounded-[2px] border"
        style={{
          width: '100%',
          height,
          background: 'var(--card)',
          borderColor: hand.by ? 'var(--deep)' : 'var(--hair)',
        }}
        aria-label={`Clip ${clip.name}`}
        role="img"
      />
      {isError && (
        <span className="absolute inset-0 grid place-items-center text-small">
          {clip.name}: the waveform cannot be drawn
        </span>
      )}
    </div>
  )
}
