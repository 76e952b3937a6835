import { useMemo } from 'react'
import type { Clip, Thing } from '../api/types'
import { contours, UNITS, useOverview } from '../clips/wave'

const SIZE = { width: 120, height: 26 }
const whole = { gain: 0, offset: 0 } as Clip

/** What a thing sounds like at a glance: all of it, whatever its length. */
export function ThingWave({ thing }: { thing: Thing }) {
  const { data } = useOverview(thing.heard)
  const drawn = useMemo(
    () =>
      data
        ? contours(data, { clip: whole, first: 0, perPixel: thing.frames / SIZE.width, shift: 0, ...SIZE })
        : [],
    [data, thing.frames],
  )
  return (
    <svg
      {...SIZE}
      viewBox={`0 0 ${SIZE.width} ${SIZE.height * UNITS}`}
      preserveAspectRatio="none"
      className="shrink-0"
      aria-hidden
    >
      {drawn.map((c) => (
        <path key={c.colour} d={c.path} fill={c.colour} />
      ))}
    </svg>
  )
}
