import { memo, useDeferredValue, useRef } from 'react'
import type { Channel, Timeline } from '../api/types'
import { type Lens, STEADY, steady } from '../document/time'
import { NamesAtEdge, ROOMY } from './ClipName'
import { ClipView } from './ClipView'
import { Overlaps } from './Overlaps'
import { useSeen } from './useSeen'

type Props = { channel: Channel; timeline: Timeline; lens: Lens; width: number; height: number }

/** The clips of a row. They lie on a sheet that is shoved along as the song is scrolled, and drawn anew only once it has
    gone some way; rows out of sight come after those that are seen. */
export function RowClips({ channel, timeline, lens, width, height }: Props) {
  const box = useRef<HTMLDivElement>(null)
  const seen = useSeen(box)
  const now = steady(lens)
  const late = useDeferredValue(now)
  const shown = seen || late.perPixel !== now.perPixel ? now : late
  const shift = Math.round((lens.scroll - shown.scroll) / lens.perPixel)
  return (
    <>
      <div
        ref={box}
        className="absolute inset-y-0 left-0 will-change-transform"
        style={{ width: width + STEADY, transform: `translateX(${-shift}px)` }}
      >
        <Clips channel={channel} timeline={timeline} lens={shown} width={width + STEADY} height={height} />
      </div>
      {height >= ROOMY && <NamesAtEdge clips={channel.clips} timeline={timeline} lens={lens} />}
    </>
  )
}

const Clips = memo(function Clips({ channel, timeline, lens, width, height }: Props) {
  return (
    <>
      {channel.clips.map((c) => {
        const start = timeline.clips[c.id]
        if (start === undefined) return null // where it lies is not said yet
        return (
          <ClipView
            key={c.id}
            clip={c}
            row={channel.id}
            start={start}
            lens={lens}
            width={width}
            height={height}
          />
        )
      })}
      <Overlaps row={channel.id} timeline={timeline} lens={lens} />
    </>
  )
})
