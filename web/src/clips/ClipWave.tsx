import { memo, useEffect, useRef, useState } from 'react'
import type { Clip } from '../api/types'
import { useSeen } from './useSeen'
import { useTreatedWave } from './treatedWave'
import { drawWave, useOverview } from './wave'
import { useShown } from './worked'

type Props = {
  clip: Clip
  first: number // the frame of the clip at its left edge
  perPixel: number
  width: number
  height: number
  edge: string
  lit: boolean
}

/** The sound of a clip as it is drawn, once it is in sight. */
export const ClipWave = memo(function ClipWave(p: Props) {
  const { clip, first, perPixel, width, height, edge, lit } = p
  const { hash, shift: worked } = useShown(clip)
  const { data: shown, isError } = useOverview(hash)
  const { data: original } = useOverview(hash === clip.audio ? '' : clip.audio)
  const canvas = useRef<HTMLCanvasElement>(null)
  const seen = useSeen(canvas)
  const treated = useTreatedWave(clip, seen)
  const data = treated?.data ?? shown
  const shift = treated ? -treated.from : worked
  const source = original ?? (treated ? shown : undefined)
  const theme = useThemeTurns()
  useEffect(() => {
    if (!canvas.current || !data || !seen) return
    drawWave(canvas.current, data, { clip, first, perPixel, width, height, shift, source })
  }, [seen, data, source, shift, clip, first, perPixel, width, height, theme])
  return (
    <>
      <canvas
        ref={canvas}
        className="rounded-[2px] border"
        style={{
          width: '100%',
          height,
          background: 'var(--card)',
          borderColor: edge,
          boxShadow: lit ? '0 0 0 1px var(--ink)' : undefined,
          borderStyle: clip.mute ? 'dashed' : 'solid',
        }}
        aria-label={`Clip ${clip.name}`}
        role="img"
      />
      {isError && (
        <span className="absolute inset-0 grid place-items-center text-small">
          {clip.name}: the waveform cannot be drawn
        </span>
      )}
    </>
  )
})

/** Counts how often the theme was turned: what is drawn in its colours is drawn anew. */
function useThemeTurns() {
  const [turns, setTurns] = useState(0)
  useEffect(() => {
    const f = () => setTurns((n) => n + 1)
    window.addEventListener('shoal-theme', f)
    return () => window.removeEventListener('shoal-theme', f)
  }, [])
  return turns
}
