import { memo, useRef } from 'react'
import type { Clip } from '../api/types'
import { useSeen } from './useSeen'
import { useTreatedWave } from './treatedWave'
import { type Contour, contours, type Seen, UNITS, useOverview } from './wave'
import { useShown } from './worked'

type Wave = {
  clip: Clip
  first: number // the frame of the clip at its left edge
  perPixel: number
  width: number
  height: number
}
type Props = Wave & { edge: string; lit: boolean }

/** The sound of a clip as it is drawn, once it has been in sight: until then it is only its frame. */
export const ClipWave = memo(function ClipWave({ edge, lit, ...wave }: Props) {
  const { clip, height } = wave
  const box = useRef<HTMLDivElement>(null)
  const seen = useSeen(box)
  const begun = useRef(false)
  if (seen) begun.current = true
  const Sound = clip.treatment ? TreatedSound : PlainSound
  return (
    <div
      ref={box}
      role="img"
      aria-label={`Clip ${clip.name}`}
      className="rounded-[2px] border"
      style={{
        height,
        background: 'var(--card)',
        borderColor: edge,
        boxShadow: lit ? '0 0 0 1px var(--ink)' : undefined,
        borderStyle: clip.mute ? 'dashed' : 'solid',
      }}
    >
      {begun.current && <Sound {...wave} seen={seen} />}
    </div>
  )
})

type SoundProps = Wave & { seen: boolean }

function PlainSound({ seen, ...wave }: SoundProps) {
  const { data, isError } = useOverview(wave.clip.audio)
  return <Drawn {...wave} list={useDrawn(seen, data, { ...wave, shift: 0 })} failed={isError} />
}

/** What a treatment makes of a clip, with the outline of its source behind it. */
function TreatedSound({ seen, ...wave }: SoundProps) {
  const { clip } = wave
  const { hash, shift: worked } = useShown(clip)
  const { data: shown, isError } = useOverview(hash)
  const { data: original } = useOverview(hash === clip.audio ? '' : clip.audio)
  const treated = useTreatedWave(clip, seen)
  const data = treated?.data ?? shown
  const shift = treated ? -treated.from : worked
  const source = original ?? (treated ? shown : undefined)
  return <Drawn {...wave} list={useDrawn(seen, data, { ...wave, shift, source })} failed={isError} />
}

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

function Drawn({ clip, width, height, list, failed }: Wave & { list: Contour[]; failed: boolean }) {
  return (
    <>
      <svg
        className="block h-full w-full"
        viewBox={`0 0 ${width} ${height * UNITS}`}
        preserveAspectRatio="none"
        aria-hidden
      >
        {list.map((x) => (
          <path key={x.colour} d={x.path} fill={x.colour} />
        ))}
        {list.length > 0 && (
          <rect y={(height / 2 - 0.5) * UNITS} width={width} height={UNITS} fill="var(--deep)" />
        )}
      </svg>
      {failed && (
        <span className="absolute inset-0 grid place-items-center text-small">
          {clip.name}: the waveform cannot be drawn
        </span>
      )}
    </>
  )
}
