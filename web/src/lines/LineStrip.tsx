import { opens } from '../controls/menuAt'
import { memo, useEffect, useRef } from 'react'
import type { Channel, LineView, SeenPoint } from '../api/types'
import { SPARE } from '../board/Sheet'
import { said } from '../controls/format'
import type { Lens } from '../document/time'
import { useSession } from '../session/store'
import { useView, view } from '../session/view'
import { Outside } from './Outside'
import { Points } from './Points'
import { Tip } from './Tip'
import * as lines from './actions'
import { perPixel, placeAt, STRIP_HEIGHT, valueOf, within, y } from './face'
import { drawn } from './lineFocus'
import { useHand } from './useHand'
import { useLine } from './useLine'

type Props = { channel: Channel; owner: string; name: string; lens: Lens; width: number }

/** A line in the air of its row. */
export const LineStrip = memo(function LineStrip(p: Props) {
  const v = useLine(p.owner, p.name, p.channel.id, p.lens, p.width)
  return v ? <Drawn {...p} v={v} /> : <div style={{ height: STRIP_HEIGHT }} />
})

/** It is drawn in its own taper, with points that are taken hold of. */
function Drawn(p: Props & { v: LineView }) {
  const { v } = p
  const any = useView((s) => s.stretch)
  const stretch = any?.owner === p.owner && any.name === p.name ? any : null
  const along = any?.more?.find((m) => m.owner === p.owner && m.name === p.name)
  const taken = useSession((s) => s.takingDown.includes(`${p.owner} ${p.name}`))
  const box = useRef<SVGSVGElement>(null)
  useEffect(() => drawn(`${p.owner} ${p.name}`, box.current!), [p.owner, p.name])
  const hand = useHand(v, p.lens, box, p.channel.id, p.width)
  const chosen = (pt: SeenPoint) => (stretch ?? along)?.ticks.includes(pt.tick) ?? false
  const pull = useView((s) => (along ? s.pull : null))
  const shift =
    hand.drag?.kind === 'points' ? hand.drag : along && pull ? { ...pull, ticks: along.ticks } : null
  const held = (pt: SeenPoint) => shift?.ticks.includes(pt.tick) ?? false
  const lies = (pt: SeenPoint) => ({ x: p.lens.x(pt.frame), y: y(pt.place) })
  const seenAt = (pt: SeenPoint) =>
    held(pt)
      ? { x: lies(pt).x + shift!.dx, y: y(within(pt.place - shift!.dy * perPixel)) }
      : { x: lies(pt).x, y: y(within(pt.place)) }
  const first = v.points.find(held)
  const told = first ?? (hand.drag ? undefined : v.points.find((pt) => pt.tick === hand.over))
  const flat = hand.drag?.kind === 'flat' ? hand.drag.place : null
  const path = v.path
    .map(
      (x, i) =>
        `${i ? 'L' : 'M'}${((i / (v.path.length - 1)) * p.width).toFixed(1)} ${y(flat ?? x).toFixed(1)}`,
    )
    .join('')
  const mark =
    hand.drag?.kind === 'range'
      ? ([Math.min(hand.drag.from, hand.drag.to), Math.max(hand.drag.from, hand.drag.to)] as const)
      : stretch && stretch.to > stretch.from
        ? ([p.lens.x(stretch.from), p.lens.x(stretch.to)] as const)
        : null
  return (
    <div
      className="relative select-none [content-visibility:auto] focus-within:[content-visibility:visible] hover:[content-visibility:visible]"
      style={{ height: STRIP_HEIGHT, borderTop: '1px dotted var(--hair)' }}
      onClick={(e) => e.stopPropagation()}
      onDoubleClick={(e) => e.stopPropagation()}
      onContextMenu={opens(`line ${v.owner} ${v.name}`)}
    >
      <svg
        ref={box}
        width={p.width}
        height={STRIP_HEIGHT}
        tabIndex={0}
        role="group"
        data-line={`${v.owner} ${v.name}`}
        aria-label={`Line of ${lines.labelOf(v)}, ${v.count} ${v.count === 1 ? 'point' : 'points'}`}
        className="absolute inset-0 cursor-crosshair touch-none"
        onPointerDown={hand.down}
        onPointerMove={hand.drags}
        onPointerUp={hand.up}
        onPointerLeave={hand.leave}
        onDoubleClick={(e) => {
          const w = hand.where(e)
          void lines.putPoint(v, p.lens.frame(w.x), valueOf(v, placeAt(w.y)), e.altKey ? 0 : undefined)
        }}
        onKeyDown={hand.key}
      >
        <rect x={0} y={0} width={p.width} height={STRIP_HEIGHT} fill="transparent" />
        {hand.drag?.kind === 'box' && (
          <rect
            x={Math.min(hand.drag.x, hand.drag.toX)}
            y={Math.min(hand.drag.y, hand.drag.toY)}
            width={Math.abs(hand.drag.toX - hand.drag.x)}
            height={Math.abs(hand.drag.toY - hand.drag.y)}
            fill="var(--shoal-3)"
            fillOpacity={0.3}
            stroke="var(--deep)"
            strokeDasharray="3 2"
          />
        )}
        {mark && (
          <rect
            x={mark[0]}
            y={0}
            width={mark[1] - mark[0]}
            height={STRIP_HEIGHT}
            fill="var(--shoal-3)"
            opacity={0.4}
          />
        )}
        <path
          d={`${path}L${p.width} ${STRIP_HEIGHT}L0 ${STRIP_HEIGHT}Z`}
          fill="var(--shoal-2)"
          opacity={0.35}
        />
        <path d={path} fill="none" stroke={taken ? 'var(--live)' : 'var(--deep)'} strokeWidth={1.6} />
        {v.clip && <Outside v={v} lens={p.lens} width={p.width} />}
        {shift?.copy && <Points points={v.points.filter(held)} seenAt={lies} chosen={() => false} />}
        <Points points={v.points} seenAt={seenAt} chosen={chosen} />
        {told && (
          <Tip
            text={[
              said(v.param, held(told) ? valueOf(v, placeAt(seenAt(told).y)) : told.value),
              told !== first && told.shape,
            ]
              .filter(Boolean)
              .join(', ')}
            seen={seenAt(told)}
            edge={p.lens.x(view().scroll) + p.width - SPARE}
          />
        )}
      </svg>
    </div>
  )
}
