import { useRef } from 'react'
import type { Picture, Tap } from '../api/types'
import { tapText } from '../routing/taps'
import { useHeard } from '../session/meters'
import { useOutline } from '../session/outline'
import type { Frame } from './frame'

/** What drives a stage in place of its own signal, in its picture: named, and where the picture lies over
    level, an upright at the level that is heard of it now. */
export function KeyMark(p: { stage: string; tap: Tap; live: Picture['live']; frame: Frame; height: number }) {
  const text = useOutline(() => tapText(p.tap))
  const upright = useRef<SVGLineElement>(null)
  useHeard((h) => {
    const x = (p.live && h.reports.get(p.stage)?.[p.live.x]) ?? -120
    if (!upright.current) return
    upright.current.style.opacity = x > p.frame.xMin ? '0.8' : '0'
    for (const end of ['x1', 'x2'])
      upright.current.setAttribute(end, p.frame.x(Math.max(x, p.frame.xMin)).toFixed(1))
  })
  return (
    <g>
      {p.live && !p.live.hidden && (
        <line ref={upright} y1={16} y2={p.height} stroke="var(--live)" strokeDasharray="3 2" opacity={0} />
      )}
      <text x={4} y={11} fontSize={12} fill="var(--ink)" data-testid="key-mark">
        {`key: ${text}`}
      </text>
    </g>
  )
}
