import { memo } from 'react'
import type { Channel, Timeline } from '../api/types'
import { RangeShade } from '../clips/RangeShade'
import { RowClips } from '../clips/RowClips'
import { useRange } from '../clips/useRange'
import { openMenu } from '../controls/menuAt'
import { shownChain } from '../document/chain'
import type { Lens } from '../document/time'
import { LineHead } from '../lines/LineHead'
import { LineStrip } from '../lines/LineStrip'
import { PassageShade } from '../passages/PassageShade'
import { tapText } from '../routing/taps'
import { select } from '../session/selected'
import { useOutline } from '../session/outline'
import { locate } from '../session/transport'
import { useView, view } from '../session/view'
import { RowHead } from './RowHead'
import { Surface } from './Surface'
import { Water } from './Water'
import { carried } from './carry'
import { heights } from './heights'
import { within } from '../theme/size'

type Props = {
  channel: Channel
  index: number
  timeline: Timeline | null
  lens: Lens | null
  width: number
  depth: number
  lit: 'feeds' | 'fed' | ''
}

const none: string[] = []

/** A row: time above the surface, signal below it; the tide sets how much of each. Drawn anew when it has changed,
    not with every revision. */
export const Row = memo(function Row({ channel, index, timeline, lens, width, depth, lit }: Props) {
  const tide = useView((v) => v.tide)
  const base = useView((v) => v.rowHeight)
  const selected = useView((v) => v.channel === channel.id)
  const together = useView((v) => v.rows.includes(channel.id))
  const open = useView((v) => v.lines[channel.id] ?? none)
  const own = useView((v) => v.airs[channel.id])
  const head = useView((v) => v.headWidth)
  const { air, water, all: height } = heights(tide, base, own, open.length)
  const range = useRange(timeline, lens)
  return (
    <div
      role="group"
      aria-label={channel.name}
      data-row={channel.id}
      className="turning relative flex shrink-0 [content-visibility:auto] focus-within:z-10 focus-within:[content-visibility:visible] hover:z-10 hover:[content-visibility:visible]"
      style={{
        contain: 'layout style', // a figure that changes must not lay out the board anew
        containIntrinsicSize: `auto ${height}px`,
        height,
        background: selected || together ? 'var(--card)' : 'var(--paper)',
        boxShadow: `inset 0 -1px 0 var(--hair)${selected || together ? ', inset 5px 0 0 var(--ink)' : ''}`,
      }}
      onClick={() => select(channel.id)}
      onContextMenu={(e) => openMenu(`row ${channel.id}`, e)}
      onDragOver={(e) => carried(e) && e.preventDefault()}
      onDrop={(e) => {
        // anywhere on the row is the end of its chain
        const c = carried(e)
        if (!c || e.defaultPrevented) return
        e.preventDefault()
        const { owner, chain } = shownChain(channel, view().trials)
        c.drop(owner, chain.nodes.length)
      }}
    >
      <RowHead channel={channel} index={index} line={own === 'line'} depth={depth} lit={lit} />
      {air > 0 && lens && open.length > 0 && (
        <div className="absolute left-0 pr-2" style={{ top: air, width: head, paddingLeft: 12 + depth * 7 }}>
          {open.map((key) => {
            const [owner, name] = key.split(' ') as [string, string]
            return (
              <LineHead key={key} channel={channel} owner={owner} name={name} lens={lens} width={width} />
            )
          })}
        </div>
      )}
      <div className="relative min-w-0 flex-1 overflow-hidden">
        {air > 0 && timeline && lens && (
          <div
            className="absolute inset-x-0 top-0 overflow-x-clip"
            style={{ height: air }}
            {...range}
            onDoubleClick={(e) => locate(lens.frame(within(e, e.currentTarget).x))}
          >
            <RowClips channel={channel} timeline={timeline} lens={lens} width={width} height={air - 3} />
            <RangeShade row={channel.id} lens={lens} />
            <PassageShade row={channel.id} passages={timeline.passages} lens={lens} />
            {channel.clips.length === 0 && channel.kind === 'track' && <Empty channel={channel} />}
          </div>
        )}
        {air > 0 && timeline && lens && open.length > 0 && (
          <div className="absolute inset-x-0" style={{ top: air }}>
            {open.map((key) => {
              const [owner, name] = key.split(' ') as [string, string]
              return (
                <LineStrip key={key} channel={channel} owner={owner} name={name} lens={lens} width={width} />
              )
            })}
          </div>
        )}
        {water > 0 && (
          <div className="turning absolute inset-x-0 bottom-0" style={{ height: water, overflow: 'visible' }}>
            <Surface seed={index + 1} lit={selected} />
            <Water channel={channel} width={width} />
          </div>
        )}
      </div>
    </div>
  )
})

/** What a track without clips lives from, or how it comes by some. */
function Empty({ channel }: { channel: Channel }) {
  useOutline((o) => o) // what it takes in is said there
  return (
    <span className="soft absolute top-1 left-2 text-small">
      {channel.input
        ? `Takes in ${tapText(channel.input)}`
        : 'Drop a WAV, FLAC or MP3 on the board, or print another row to here'}
    </span>
  )
}
