import type { Timeline } from '../api/types'
import { type PointerEvent, useRef } from 'react'
import { barAt, type Lens } from '../document/time'
import { BAND, PassageBand } from '../passages/PassageBand'
import { SectionHead } from '../sections/SectionHead'
import { useSession } from '../session/store'
import { locate } from '../session/transport'
import { setView, type Tide, useView, view } from '../session/view'
import { Playhead } from './Playhead'
import { HEAD } from './RowHead'
import { STRIP } from './Water'

const tides: Tide[] = ['low', 'mid', 'high']

/** Sections and bars; a click sets the playhead, a drag sets a range. At high tide there are column heads instead. */
export function Ruler({
  timeline,
  lens,
  width,
}: {
  timeline: Timeline | null
  lens: Lens | null
  width: number
}) {
  const tide = useView((v) => v.tide)
  const loop = useView((v) => v.loop)
  const looping = useView((v) => v.looping)
  // by the document, which is there before the song is laid out: the board must not move then
  const passages = useSession((s) => s.project?.passages?.length ?? 0)
  const more = tide !== 'high' && (passages > 0 || loop) ? BAND : 0
  return (
    <div className="flex shrink-0" style={{ height: 29 + more, borderBottom: '1px solid var(--hair)' }}>
      <div
        className="flex shrink-0 items-center gap-2 pl-3"
        style={{ width: HEAD, borderRight: '1px solid var(--hair)' }}
      >
        <span className="soft text-[12px]">Tide</span>
        <span className="join">
          {tides.map((t) => (
            <button
              key={t}
              className={`join-item btn btn-xs px-1.5 font-normal ${tide === t ? 'btn-primary' : 'btn-outline'}`}
              style={{ height: 18, minHeight: 18, borderColor: 'var(--soft)' }}
              aria-pressed={tide === t}
              onClick={() => setView({ tide: t })}
            >
              {t}
            </button>
          ))}
        </span>
      </div>
      {tide === 'high' ? (
        <Heads />
      ) : (
        timeline &&
        lens && (
          <Time timeline={timeline} lens={lens} width={width} loop={looping ? loop : null} mark={loop} />
        )
      )}
    </div>
  )
}

function Heads() {
  return (
    <div className="water-label flex flex-1 items-center text-[12px]">
      <span className="flex-1 pl-3">stages, in order</span>
      <span className="flex gap-3 pr-3" style={{ width: STRIP }}>
        <span className="w-[148px] pl-1">level</span>
        <span className="w-[148px]">sends</span>
        <span className="w-[76px] pl-1">out</span>
      </span>
    </div>
  )
}

type Span = { from: number; to: number; name: string } | null

function Time({
  timeline,
  lens,
  width,
  loop,
  mark,
}: {
  timeline: Timeline
  lens: Lens
  width: number
  loop: Span
  mark: Span
}) {
  const start = useRef<number | null>(null)
  const frameAt = (e: PointerEvent) =>
    Math.max(0, lens.frame(e.clientX - e.currentTarget.getBoundingClientRect().left))
  const perBar = (timeline.bars[1]!.frame - timeline.bars[0]!.frame) / lens.perPixel
  const every = [1, 2, 4, 8, 16, 32].find((n) => n * perBar > 44) ?? 64
  const snap = (f: number) => {
    const i = barAt(timeline, f)
    const a = timeline.bars[i]!.frame
    const b = timeline.bars[i + 1]?.frame ?? a
    return f - a < b - f ? a : b
  }
  return (
    <div
      className="relative flex-1 cursor-pointer touch-none overflow-hidden"
      role="region"
      aria-label="Time: click to set the playhead, drag to set a range"
      onPointerDown={(e) => {
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
          className="absolute top-[14px] h-[15px] overflow-hidden pl-1 text-[11px] whitespace-nowrap italic"
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
        return (
          <span
            key={i}
            className="figure soft pointer-events-none absolute top-[16px] border-l pl-1 text-[10px]"
            style={{ left: x, borderColor: 'var(--soft)', height: 13 }}
          >
            {i + 1}
          </span>
        )
      })}
      {(timeline.passages.length > 0 || mark) && (
        <PassageBand timeline={timeline} lens={lens} mark={mark} width={width} />
      )}
      <Playhead lens={lens} flag />
    </div>
  )
}
