import { type MouseEvent, useRef, useState } from 'react'
import type { Timeline } from '../api/types'
import { opens } from '../controls/menuAt'
import { barAt, lens as makeLens } from '../document/time'
import { extent } from '../passages/extent'
import { PassageBand } from '../passages/PassageBand'
import { SectionHead } from '../sections/SectionHead'
import { locate } from '../session/transport'
import { setView, useViewOf, view } from '../session/view'
import { OtherPlayheads } from './OtherPlayheads'
import { Playhead } from './Playhead'
import { RulerMenu } from './RulerMenu'
import { within } from '../theme/size'

export type Span = { from: number; to: number; name: string } | null

export function Time({
  timeline,
  width,
  loop,
  mark,
}: {
  timeline: Timeline
  width: number
  loop: Span
  mark: Span
}) {
  const { zoom, scroll } = useViewOf('zoom', 'scroll')
  const lens = makeLens(timeline, width, zoom, scroll)
  const start = useRef<number | null>(null)
  const [pressed, setPressed] = useState(0)
  const frameAt = (e: MouseEvent) => Math.max(0, lens.frame(within(e, e.currentTarget).x))
  const perBar = (timeline.bars[1]!.frame - timeline.bars[0]!.frame) / lens.perPixel
  const every = [1, 2, 4, 8, 16, 32].find((n) => n * perBar > 44) ?? 64
  const snap = (f: number) => {
    const i = barAt(timeline, f)
    const a = timeline.bars[i]!.frame
    const b = timeline.bars[i + 1]?.frame ?? a
    return f - a < b - f ? a : b
  }
  // where a passage and its name stand there is no room for the figure of a bar
  const taken = timeline.passages.map((x) => extent(x, lens, width))
  return (
    <>
      <div
        className="relative flex-1 cursor-pointer touch-none overflow-hidden"
        role="region"
        aria-label="Time: click to set the playhead, drag to set a range"
        onContextMenu={opens('ruler', (e) => setPressed(frameAt(e)))}
        onPointerDown={(e) => {
          if (e.button !== 0) return
          e.currentTarget.setPointerCapture(e.pointerId)
          start.current = frameAt(e)
        }}
        onPointerMove={(e) => {
          if (start.current === null) return
          const [a, b] = [snap(start.current), snap(frameAt(e))].sort((x, y) => x - y)
          if (Math.abs(frameAt(e) - start.current) / lens.perPixel > 8 && b! > a!) {
            setView({
              loop: { from: a!, to: b!, name: `bars ${barAt(timeline, a!) + 1} to ${barAt(timeline, b!)}` },
            })
          }
        }}
        onPointerUp={(e) => {
          const dragged = start.current !== null && Math.abs(frameAt(e) - start.current) / lens.perPixel > 8
          // to what the ruler shows: bars where they are narrow, else the grid; with Alt anywhere
          const at = frameAt(e)
          if (start.current !== null && !dragged) {
            if (e.altKey) locate(at)
            else if (perBar < 96) locate(snap(at))
            else locate(at, view().grid)
          }
          start.current = null
        }}
      >
        {mark && (
          <span
            className="absolute top-[25px] h-6"
            style={{
              left: lens.x(mark.from),
              width: Math.max(2, (mark.to - mark.from) / lens.perPixel),
              background: loop ? 'var(--shoal-3)' : 'var(--shoal-2)',
              color: 'var(--ink)',
            }}
          />
        )}
        {timeline.sections.map((s) => (
          <SectionHead
            key={s.id}
            section={s}
            left={lens.x(s.from)}
            width={Math.max(0, (s.to - s.from) / lens.perPixel - 1)}
          />
        ))}
        {timeline.bars.map((b, i) => {
          const x = lens.x(b.frame)
          if (i % every !== 0 || x < -40 || x > width) return null
          const text = String(i + 1)
          const room = !taken.some((t) => t.begin < x + 6 + text.length * 7.5 && x < t.end)
          return (
            <span
              key={i}
              className="figure soft pointer-events-none absolute bottom-0 border-l pl-1 text-small"
              style={{ left: x, borderColor: 'var(--soft)', height: room ? 18 : 6 }}
            >
              {room && text}
            </span>
          )
        })}
        {(timeline.passages.length > 0 || mark) && (
          <PassageBand timeline={timeline} lens={lens} mark={mark} width={width} />
        )}
        <OtherPlayheads perPixel={lens.perPixel} rate={timeline.rate} />
        <Playhead perPixel={lens.perPixel} flag />
      </div>
      <RulerMenu at={pressed} timeline={timeline} />
    </>
  )
}
