import { useRef, useState } from 'react'
import { barAt } from '../document/time'
import { putTempo } from '../sections/actions'
import { useHeard } from '../session/meters'
import { useSession } from '../session/store'
import { setView } from '../session/view'

/** The tempo at the playhead. Where there is only one it is typed here; else the card holds them all. */
export function Tempo() {
  const tempo = useSession((s) => s.project!.tempo)
  const meter = useSession((s) => s.project!.meter[0]!)
  const timeline = useSession((s) => s.timeline)
  const [typing, setTyping] = useState(false)
  const figure = useRef<HTMLSpanElement>(null)
  const only = tempo.length === 1
  const bpm = tempo[0]!.bpm
  useHeard((h) => {
    const bar = timeline && !only ? timeline.bars[barAt(timeline, h.song)] : undefined
    const now = (bar?.tempo ?? bpm).toFixed(1)
    if (figure.current && figure.current.textContent !== now) figure.current.textContent = now
  })
  return (
    <div>
      <div className="soft text-small">Tempo</div>
      {typing ? (
        <input
          autoFocus
          className="figure input input-xs w-[76px]"
          aria-label="Tempo in quarter notes a minute"
          defaultValue={bpm}
          onBlur={() => setTyping(false)}
          onKeyDown={(e) => {
            e.stopPropagation()
            if (e.key === 'Escape') setTyping(false)
            if (e.key !== 'Enter') return
            const v = Number(e.currentTarget.value.replace(',', '.'))
            setTyping(false)
            if (v !== bpm) void putTempo({ tick: 0, bpm: v })
          }}
        />
      ) : (
        <button
          className="figure -mb-1 h-6 text-clock leading-[18px] whitespace-nowrap hover:underline"
          title={
            only
              ? 'Quarter notes a minute; click to type. The menu of the project has ramps.'
              : 'Quarter notes a minute at the playhead; click for all tempos'
          }
          onClick={() => (only ? setTyping(true) : setView({ dialog: { kind: 'tempo' } }))}
        >
          <span ref={figure}>{bpm.toFixed(1)}</span>
          <span className="soft text-label">
            {' '}
            {meter.beats}/{meter.unit}
          </span>
        </button>
      )}
    </div>
  )
}
