import { memo } from 'react'
import type { Channel, Timeline } from '../api/types'
import { openMenu } from '../controls/menuAt'
import { shownChain } from '../document/chain'
import { select } from '../session/selected'
import { useView, view } from '../session/view'
import { RowHead } from './RowHead'
import { LineHeads, RowTime } from './RowTime'
import { Surface } from './Surface'
import { Water } from './Water'
import { carried } from './carry'
import { heights } from './heights'

type Props = {
  channel: Channel
  index: number
  timeline: Timeline | null
  width: number
  depth: number
  lit: 'feeds' | 'fed' | ''
}

const none: string[] = []

/** A row: time above the surface, signal below it; the tide sets how much of each. Drawn anew when it has changed,
    not with every revision. */
export const Row = memo(function Row({ channel, index, timeline, width, depth, lit }: Props) {
  const tide = useView((v) => v.tide)
  const base = useView((v) => v.rowHeight)
  const selected = useView((v) => v.channel === channel.id)
  const together = useView((v) => v.rows.includes(channel.id))
  const open = useView((v) => v.lines[channel.id] ?? none)
  const own = useView((v) => v.airs[channel.id])
  const head = useView((v) => v.headWidth)
  const { air, water, all: height } = heights(tide, base, own, open.length)
  return (
    <div
      role="group"
      aria-label={channel.name}
      data-row={channel.id}
      className="turning relative flex shrink-0 focus-within:z-10"
      style={{
        contain: 'layout style', // a figure that changes must not lay out the board anew
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
      {air > 0 && timeline && open.length > 0 && (
        <div className="absolute left-0 pr-2" style={{ top: air, width: head, paddingLeft: 12 + depth * 7 }}>
          <LineHeads channel={channel} index={index} timeline={timeline} width={width} open={open} />
        </div>
      )}
      <div className="relative min-w-0 flex-1 overflow-hidden">
        {air > 0 && timeline && (
          <RowTime channel={channel} index={index} timeline={timeline} width={width} air={air} open={open} />
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
