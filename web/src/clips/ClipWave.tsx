import { memo, useRef } from 'react'
import type { Clip } from '../api/types'
import { useSeen } from './useSeen'
import { useTreatedWave } from './treatedWave'
import { type Contour, contours, type Seen, UNITS, useOverview } from './wave'
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
  const svg = useRef<SVGSVGElement>(null)
  const seen = useSeen(svg)
  const treated = useTreatedWave(clip, seen)
  const data = treated?.data ?? shown
  const shift = treated ? -treated.from : worked
  const source = original ?? (treated ? shown : undefined)
  const drawn = useDrawn(seen, data, { clip, first, perPixel, width, height, shift, source })
  return (
    <>
      <svg
        ref={svg}
        className="block rounded-[2px] border"
        style={{
          width: '100%',
          height,
          background: 'var(--card)',
          borderColor: edge,
          boxShadow: lit ? '0 0 0 1px var(--ink)' : undefined,
          borderStyle: clip.mute ? 'dashed' : 'solid',
        }}
        viewBox={`0 0 ${width} ${height * UNITS}`}
        preserveAspectRatio="none"
        aria-label={`Clip ${clip.name}`}
        role="img"
      >
        {drawn.map((x) => (
          <path key={x.colour} d={x.path} fill={x.colour} />
        ))}
        {drawn.length > 0 && (
          <rect y={(height / 2 - 0.5) * UNITS} width={width} height={UNITS} fill="var(--deep)" />
        )}
      </svg>
      {isError && (
        <span className="absolute inset-0 grid place-items-center text-small">
          {clip.name}: the waveform cannot be drawn
        </span>
      )}
    </>
  )
})

/** What is drawn of a clip: worked out when it is in sight, and kept when it goes out of sight and comes back as it was. */
function useDrawn(seen: boolean, data: Uint8Array | undefined, of: Seen): Contour[] {
  const { clip, first, perPixel, width, height, shift, source } = of
  const kept = useRef<{ by: unknown[]; list: Contour[] }>({ by: [], list: [] })
  const by = [data, source, shift, clip, first, perPixel, width, height]
  if (seen && data && by.some((x, i) => x !== kept.current.by[i])) {
    kept.current = { by, list: contours(data, of) }
  }
  return kept.current.list
}
