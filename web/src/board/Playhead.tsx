import { useLayoutEffect, useRef } from 'react'
import { useHeard } from '../session/meters'
import { useView, view } from '../session/view'

/** Where the song is heard: one line over all rows, and its flag in the ruler. It is moved by a transform,
    on a layer of its own, so that nothing else is laid out or painted anew. */
export function Playhead({ perPixel, flag }: { perPixel: number; flag?: boolean }) {
  const line = useRef<HTMLSpanElement>(null)
  const last = useRef('')
  const song = useRef(0)
  const lay = () => {
    const dots = window.devicePixelRatio
    const x = (song.current - view().scroll) / perPixel
    const t = `translateX(${Math.round(x * dots) / dots}px)` // by whole dots: less would not be seen
    if (t !== last.current) line.current!.style.transform = last.current = t
  }
  useHeard((h) => {
    song.current = h.song
    lay()
  })
  useLayoutEffect(() => {
    lay()
    return useView.subscribe((v, before) => v.scroll !== before.scroll && lay())
  })
  return (
    <span
      ref={line}
      className="pointer-events-none absolute top-0 left-0 h-full w-px"
      style={{ background: flag ? 'transparent' : 'var(--ink)', willChange: 'transform' }}
    >
      {flag && (
        <svg width="12" height="10" className="absolute bottom-0 -left-[5.5px]" aria-hidden>
          <path d="M0 0H12L6 10Z" fill="var(--ink)" />
        </svg>
      )}
    </span>
  )
}
