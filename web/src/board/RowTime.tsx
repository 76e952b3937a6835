import { useRef } from 'react'
import type { Channel, Timeline } from '../api/types'
import { RangeShade } from '../clips/RangeShade'
import { NamesAtEdge, ROOMY } from '../clips/ClipName'
import { RowClips } from '../clips/RowClips'
import { useLanding } from '../clips/useLanding'
import { useRange } from '../clips/useRange'
import { LineHead } from '../lines/LineHead'
import { LineStrip } from '../lines/LineStrip'
import { PassageShade } from '../passages/PassageShade'
import { tapText } from '../routing/taps'
import { useOutline } from '../session/outline'
import { useSession } from '../session/store'
import { locate } from '../session/transport'
import { inputName } from '../takes/recording'
import { opens } from '../controls/menuAt'
import { view } from '../session/view'
import { Taking } from '../takes/Taking'
import { within } from '../theme/size'
import { Sheet, SPARE, useSheet } from './Sheet'

type Props = {
  channel: Channel
  index: number
  timeline: Timeline
  width: number
  air: number
  open: string[]
}

/** What a row has of time: its clips, ranges and passages, and under them the lines that are open. */
export function RowTime({ channel, index, timeline, width, air, open }: Props) {
  const box = useRef<HTMLDivElement>(null)
  const lens = useSheet(timeline, width, index, box)
  const range = useRange(timeline, lens)
  const landing = useLanding(channel.id, lens)
  return (
    <div ref={box} className="absolute inset-x-0 top-0 overflow-x-clip" style={{ height: air }}>
      <Sheet
        lens={lens}
        width={width}
        className="absolute left-0"
        style={{ height: air }}
        {...range}
        {...landing.takes}
        onContextMenuCapture={(e) => {
          const at = lens.frame(within(e, e.currentTarget).x)
          const { piece } = view()
          if (piece?.rows.includes(channel.id) && at >= piece.from && at < piece.to) opens('range')(e)
        }}
        onDoubleClick={(e) => locate(lens.frame(within(e, e.currentTarget).x))}
      >
        <RowClips channel={channel} timeline={timeline} lens={lens} width={width + SPARE} height={air - 3} />
        <Taking row={channel.id} lens={lens} height={air - 3} />
        <RangeShade row={channel.id} lens={lens} />
        {landing.at !== null && <Mark x={landing.at} />}
        <PassageShade row={channel.id} passages={timeline.passages} lens={lens} />
      </Sheet>
      {air - 3 >= ROOMY && <NamesAtEdge clips={channel.clips} timeline={timeline} perPixel={lens.perPixel} />}
      {channel.clips.length === 0 && channel.kind === 'track' && <Empty channel={channel} />}
      {open.length > 0 && (
        <Sheet lens={lens} width={width} className="absolute left-0" style={{ top: air }}>
          {open.map((key) => (
            <LineStrip key={key} channel={channel} {...addressOf(key)} lens={lens} width={width + SPARE} />
          ))}
        </Sheet>
      )}
    </div>
  )
}

/** Where what is dragged would land. */
const Mark = ({ x }: { x: number }) => (
  <span
    className="pointer-events-none absolute inset-y-0 z-[6] w-0.5"
    style={{ left: x, background: 'var(--ink)' }}
  />
)

const addressOf = (key: string) => {
  const [owner, name] = key.split(' ') as [string, string]
  return { owner, name }
}

type Heads = { channel: Channel; index: number; timeline: Timeline; width: number; open: string[] }

/** The heads of the lines that are open, beside them. */
export function LineHeads({ channel, index, timeline, width, open }: Heads) {
  const box = useRef<HTMLDivElement>(null)
  const lens = useSheet(timeline, width, index, box)
  return (
    <div ref={box}>
      {open.map((key) => (
        <LineHead key={key} channel={channel} {...addressOf(key)} lens={lens} width={width + SPARE} />
      ))}
    </div>
  )
}

/** What a track without clips lives from, or how it comes by some. */
function Empty({ channel }: { channel: Channel }) {
  useOutline((o) => o) // what it takes in is said there
  const ready = useSession((s) => channel.id in s.ready)
  const recorded = useSession((s) => s.recording?.overviews[channel.id] !== undefined)
  if (recorded) return null
  return (
    <span className="soft pointer-events-none absolute top-1 left-2 text-small">
      {channel.input
        ? `Takes in ${tapText(channel.input)}`
        : channel.records
          ? `Recorded from ${inputName(channel.records)}: ` +
            (ready ? 'press Record ( Shift Space )' : 'make it ready ( Shift R ), then Record')
          : 'Drop a WAV, FLAC or MP3 on the board, or print another row to here'}
    </span>
  )
}
