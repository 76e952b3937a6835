import { importFiles } from './import'
import { useWheel } from './useWheel'
import { useEffect, useRef, useState } from 'react'
import { perPixelOf } from '../document/time'
import { useHeard } from '../session/meters'
import { useSession } from '../session/store'
import { setView, useViewOf, view } from '../session/view'
import { Playhead } from './Playhead'
import { Rows } from './Rows'
import { Ruler } from './Ruler'

export function Board() {
  const project = useSession((s) => s.project)!
  const timeline = useSession((s) => s.timeline)
  const { zoom, tide, headWidth } = useViewOf('zoom', 'tide', 'headWidth')
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
  const [over, setOver] = useState(false)
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
        <Rows project={project} timeline={timeline} width={width} />
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
