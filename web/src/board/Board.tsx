import { importFiles } from './import'
import { zoomBy } from './zoom'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { Channel } from '../api/types'
import { lens as makeLens } from '../document/time'
import { LitPath, useReach } from '../routing/LitPath'
import { makeGroup, openSend } from '../routing/gestures'
import { useHeard } from '../session/meters'
import { useSession } from '../session/store'
import { setView, useView, view } from '../session/view'
import { Playhead } from './Playhead'
import { Row, rowHeight } from './Row'
import { HEAD } from './RowHead'
import { Ruler } from './Ruler'
import { addRow } from './rows'

export function Board() {
  const project = useSession((s) => s.project)!
  const timeline = useSession((s) => s.timeline)
  const { zoom, scroll, showHidden, folded, tide, rowHeight: base, rows, lines: open } = useView()
  const reach = useReach()
  const box = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(1100)
  useEffect(() => {
    const el = box.current!
    const o = new ResizeObserver(() => setWidth(el.clientWidth - HEAD))
    o.observe(el)
    return () => o.disconnect()
  }, [])
  const lens = useMemo(
    () => (timeline ? makeLens(timeline, width, zoom, scroll) : null),
    [timeline, width, zoom, scroll],
  )
  useHeard((h) => {
    if (!lens) return
    const v = view()
    if (v.playing && v.zoom && (lens.x(h.song) > width || lens.x(h.song) < 0))
      setView({ scroll: Math.max(0, h.song - width * 0.05 * v.zoom) })
  })
  useEffect(() => {
    const el = box.current!
    const wheel = (e: WheelEvent) => {
      if (!timeline || !lens || view().tide === 'high') return
      if (e.ctrlKey) {
        e.preventDefault()
        zoomBy(e.deltaY < 0 ? 0.8 : 1.25, e.clientX - el.getBoundingClientRect().left - HEAD, width)
      } else if (e.deltaX !== 0 || e.shiftKey) {
        e.preventDefault()
        const by = (e.deltaX || e.deltaY) * lens.perPixel
        setView({
          zoom: lens.perPixel,
          scroll: Math.max(0, Math.min(view().scroll + by, timeline.end - width * lens.perPixel * 0.5)),
        })
      }
    }
    el.addEventListener('wheel', wheel, { passive: false })
    return () => el.removeEventListener('wheel', wheel)
  }, [timeline, lens, width])
  const [over, setOver] = useState(false)
  const groups = (c: Channel): string[] => {
    const up = project.channels.find((x) => x.id === c.output)
    return up?.kind === 'group' ? [up.id, ...groups(up)] : []
  }
  const shown = project.channels.filter(
    (c) => (showHidden || !c.hidden) && !groups(c).some((g) => folded.includes(g)),
  )
  const hidden = project.channels.length - project.channels.filter((c) => !c.hidden).length
  return (
    <div
      ref={box}
      className="relative flex min-h-0 flex-1 flex-col"
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
      <Ruler timeline={timeline} lens={lens} width={width} />
      <div className="relative flex min-h-0 flex-1">
        {lens &&
          tide !== 'high' && ( // at high tide the board has no time
            <div
              className="pointer-events-none absolute inset-y-0 right-0 z-20 overflow-hidden"
              style={{ left: HEAD }}
            >
              <Playhead lens={lens} />
            </div>
          )}
        <div
          className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto"
          // an opaque ground lets the browser scroll what is painted, instead of painting it anew
          style={{ background: 'var(--paper)' }}
        >
          <LitPath reach={reach} rows={shown} height={(c) => rowHeight(tide, base, open[c.id]?.length)} />
          {shown.map((c) => (
            <Row
              key={c.id}
              channel={c}
              index={project.channels.indexOf(c)}
              timeline={timeline}
              lens={lens}
              width={width}
              depth={groups(c).length}
              lit={reach.feeds.includes(c.id) ? 'fed' : reach.fed.includes(c.id) ? 'feeds' : ''}
            />
          ))}
          <div className="flex items-center gap-3 px-3 py-1.5 text-[12px]">
            <button className="btn btn-xs btn-outline font-normal" onClick={() => void addRow('track')}>
              Add a track
            </button>
            <button className="btn btn-xs btn-outline font-normal" onClick={() => void addRow('return')}>
              Add a return
            </button>
            <label className="btn btn-xs btn-outline font-normal">
              Import sound
              <input
                type="file"
                multiple
                className="sr-only"
                accept=".wav,.flac,.mp3,audio/*"
                onChange={(e) => {
                  void importFiles(project.id, [...(e.target.files ?? [])])
                  e.target.value = ''
                }}
              />
            </label>
            {rows.length > 1 && (
              <>
                <button className="btn btn-xs btn-secondary font-normal" onClick={() => void makeGroup()}>
                  Group {rows.length} rows <kbd className="kbd kbd-xs">A</kbd>
                </button>
                <button className="btn btn-xs btn-secondary font-normal" onClick={openSend}>
                  Send {rows.length} rows to <kbd className="kbd kbd-xs">S</kbd>
                </button>
              </>
            )}
            {hidden > 0 && (
              <button
                className="btn btn-xs btn-ghost font-normal"
                onClick={() => setView({ showHidden: !showHidden })}
              >
                {showHidden ? 'Leave out' : 'Show'} {hidden} hidden
              </button>
            )}
          </div>
        </div>
      </div>
      {over && (
        <div
          className="pointer-events-none absolute inset-0 z-30 grid place-items-center border-4 border-dashed text-lg"
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
