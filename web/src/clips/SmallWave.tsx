import { useMemo } from 'react'
import type { Clip } from '../api/types'
import { contours, UNITS, useOverview } from './wave'

type Props = {
  /** The hash of a sound, and which stretch of it is seen, in frames. */
  hash: string
  from?: number
  frames: number
  width: number
  /** It takes all the width that there is. */
  wide?: boolean
}

const HEIGHT = 26

/** What a sound is like at a glance: all of a stretch, whatever its length. */
export function SmallWave({ hash, from = 0, frames, width, wide }: Props) {
  const { data } = useOverview(hash)
  const drawn = useMemo(() => {
    const clip = { gain: 0, offset: 0 } as Clip
    const seen = { clip, first: from, perPixel: frames / width, shift: 0, width, height: HEIGHT }
    return data ? contours(data, seen) : []
  }, [data, from, frames, width])
  return (
    <svg
      width={wide ? '100%' : width}
      height={HEIGHT}
      viewBox={`0 0 ${width} ${HEIGHT * UNITS}`}
      preserveAspectRatio="none"
      className="block shrink-0"
      aria-hidden
    >
      {drawn.map((c) => (
        <path key={c.colour} d={c.path} fill={c.colour} />
      ))}
    </svg>
  )
}
