import { useEffect, useRef } from 'react'
import { Hold, useHeard } from '../session/meters'
import { setView, view } from '../session/view'
import { opens } from './menuAt'

const CLEAR = 'shoal-clear-marks'

/** Takes every held maximum and clip mark away. */
export const clearMarks = () => window.dispatchEvent(new Event(CLEAR))

type Props = {
  point: string
  title?: string
  /** Where in a chain it stands: what can be done there is in a menu. */
  place?: { owner: string; index: number; node: string }
}

/** The level at a point in dB below full scale, as on a chart: tenths small, no minus sign. The highest
    peak is held; where it went over full scale a mark stays until it is cleared. */
export function Depth({ point, title = 'Level here', place }: Props) {
  const ref = useRef<HTMLButtonElement>(null)
  const hold = useRef(new Hold(350))
  const last = useRef(NaN)
  const highest = useRef(-120)
  useEffect(() => {
    const clear = () => {
      highest.current = -120
      last.current = NaN
      if (ref.current) ref.current.dataset.over = 'false'
    }
    window.addEventListener(CLEAR, clear)
    return () => window.removeEventListener(CLEAR, clear)
  }, [])
  useHeard((h) => {
    const el = ref.current
    if (!el) return
    const p = h.peaks.get(point)
    const peak = p ? Math.max(p[0], p[1]) : -120
    if (peak > highest.current) {
      highest.current = peak
      el.title =
        `${title}, in dB below full scale. ` +
        `Highest so far: ${words(peak)}. Click to clear; the other button: what can be done here.`
      if (peak > 0) el.dataset.over = 'true'
    }
    const mean = view().depth === 'rms' ? h.means.get(point) : undefined
    const db = hold.current.feed(mean ? Math.max(mean[0], mean[1]) : peak)
    if (db === last.current) return
    last.current = db
    const text = depthText(db)
    el.firstChild!.textContent = text[0]!
    el.lastChild!.textContent = text[1]!
  }, 'figure')
  return (
    <button
      type="button"
      ref={ref}
      tabIndex={-1}
      className="depth"
      data-depth
      title={`${title}, in dB below full scale: 6₅ is −6.5 dB.`}
      onClick={(e) => {
        e.stopPropagation()
        clearMarks()
      }}
      onContextMenu={place && opens('place', () => setView({ place }))}
    >
      <span>–</span>
      <sub></sub>
    </button>
  )
}

const words = (db: number) =>
  db <= -119 ? 'nothing' : `${db > 0 ? '+' : '−'}${Math.abs(db).toFixed(1)} dBFS`

export function depthText(db: number): [string, string] {
  if (db <= -99.95) return ['–', '']
  const tenths = Math.round(Math.abs(db) * 10)
  return [(db > 0 ? '+' : '') + Math.floor(tenths / 10), String(tenths % 10)]
}
