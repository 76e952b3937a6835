import { memo } from 'react'
import type { Channel, Timeline } from '../api/types'
import type { Lens } from '../document/time'
import { ClipView } from './ClipView'
import { Overlaps } from './Overlaps'

type Props = { channel: Channel; timeline: Timeline; lens: Lens; width: number; height: number }

/** The clips of a row, as far as its sheet reaches. */
export const RowClips = memo(function RowClips({ channel, timeline, lens, width, height }: Props) {
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
