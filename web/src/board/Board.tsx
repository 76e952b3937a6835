import { BoardFoot } from './BoardFoot'
import { importFiles } from './import'
import { useWheel } from './useWheel'
import { useEffect, useRef, useState } from 'react'
import type { Channel } from '../api/types'
import { perPixelOf } from '../document/time'
import { LitPath, useReach } from '../routing/LitPath'
import { useTrace } from '../routing/traced'
import { TracedPath } from '../routing/TracedPath'
import { useHeard } from '../session/meters'
import { useSession } from '../session/store'
import { setView, useView, useViewOf, view } from '../session/view'
import { Playhead } from './Playhead'
import { Row } from './Row'
import { useGradually } from './gradually'
import { heights } from './heights'
import { Ruler } from './Ruler'

export function Board() {
  const project = useSession((s) => s.project)!
  const timeline = useSession((s) => s.timeline)
  const {
    zoom,
    showHidden,
    folded,
    tide,
    rowHeight: base,
    lines: open,
    airs,
    headWidth,
  } = useViewOf('zoom', 'showHidden', 'folded', 'tide', 'rowHeight', 'lines', 'airs', 'headWidth')
  const reach = useReach()
  const trace = useTrace()
  const box = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(1100)
  useEffect(() => {
    const el = box.current!
    const o = new ResizeObserver(() => setWidth(el.clientWidth - headWidth))
    o.observe(el)
    return () => o.disconnect()
  }, [headWidth])
  const perPixel = timeline ? perPixelOf(timeline, width, zoom) : 1
  useHeard((h) => {
    const v = view()
    const x = (h.song - v.scroll) / perPixel
    if (v.playing && v.zoom && (x > width || x < 0))
      setView({ scroll: Math.max(0, h.song - width * 0.05 * v.zoom) })
  })
  useWheel(box, timeline, perPixel, width)
  const { channel, benchHeight } = useViewOf('channel', 'benchHeight')
  const asked = useView((v) => v.dialog?.kind)
  const lines = useView((v) => v.lines[channel])
  useEffect(() => {
    // what is spoken of stays in sight, also when the bench or its lines need more room
    const row = channel && box.current?.querySelector(`[data-row="${channel}"]`)
    if (row) row.scrollIntoView({ block: 'nearest' })
  }, [channel, benchHeight, asked, lines])
  const [over, setOver] = useState(false)
  const byId = new Map(project.channels.map((c) => [c.id, c]))
  const groups = (c: Channel): string[] => {
    const up = byId.get(c.output ?? '')
    return up?.kind === 'group' ? [up.id, ...groups(up)] : []
  }
  const shown = project.channels.filter(
    (c) => (showHidden || !c.hidden) && !groups(c).some((g) => folded.includes(g)),
  )
  const hidden = project.channels.length - project.channels.filter((c) => !c.hidden).length
  const onWay = (c: Channel) => trace?.ways.some((w) => w.steps.some((x) => x.channel === c.id))
  const lit = (c: Channel) => {
    if (trace) return onWay(c) ? 'fed' : ''
    return reach.feeds.includes(c.id) ? 'fed' : reach.fed.includes(c.id) ? 'feeds' : ''
  }
  const high = (c: Channel) => heights(tide, base, airs[c.id], open[c.id]?.length ?? 0).all
  const drawn = useGradually(
    shown.length,
    shown.findIndex((c) => c.id === channel),
  )
  return (
    <div
      ref={box}
      className="relative flex min-h-[240px] flex-1 flex-col"
      onDragOver={(e) => {
        if (e.dataTransfer.types.includes('Files')) {
          e.preventDefault()
          setOver(true)
        }
      }}
      onDragLeave={(e) => e.currentTarget === e.target && setOver(false)}
      onDrop={(e) => {
        setOver(false)
        if (e.dataTransfer.files.length === 0) return
        e.preventDefault()
        void importFiles(project.id, [...e.dataTransfer.files])
      }}
    >
      <Ruler timeline={timeline} width={width} />
      <div className="relative flex min-h-0 flex-1">
        {timeline &&
          tide !== 'high' && ( // at high tide the board has no time
            <div
              className="pointer-events-none absolute inset-y-0 right-0 z-20 overflow-hidden"
              style={{ left: headWidth }}
            >
              <Playhead perPixel={perPixel} />
            </div>
          )}
        <div
          className="relative flex min-h-0 flex-1 flex-col overflow-x-hidden overflow-y-auto"
          // an opaque ground lets the browser scroll what is painted, instead of painting it anew
          style={{ background: 'var(--paper)' }}
        >
          {trace ? (
            <TracedPath trace={trace} rows={shown} height={high} />
          ) : (
            <LitPath reach={reach} rows={shown} height={high} />
          )}
          {shown.slice(0, drawn).map((c) => (
            <Row
              key={c.id}
              channel={c}
              index={project.channels.indexOf(c)}
              timeline={timeline}
              width={width}
              depth={groups(c).length}
              lit={lit(c)}
            />
          ))}
          {drawn < shown.length && (
            <div
              className="shrink-0"
              style={{ height: shown.slice(drawn).reduce((sum, c) => sum + high(c), 0) }}
            />
          )}
          <BoardFoot hidden={hidden} />
        </div>
      </div>
      {over && (
        <div
          className="pointer-events-none absolute inset-0 z-30 grid place-items-center border-4 border-dashed text-head"
          style={{
            borderColor: 'var(--deep)',
            background: 'color-mix(in srgb, var(--paper) 80%, transparent)',
          }}
        >
          Drop WAV, FLAC or MP3: each file becomes a track
        </div>
      )}
    </div>
  )
}
