import { useState } from 'react'
import * as act from '../live/actions'
import { useSession } from '../live/session'

export function Tempo() {
  const project = useSession((s) => s.project)!
  const [typing, setTyping] = useState(false)
  const bpm = project.tempo[0]!.bpm
  const meter = project.meter[0]!
  return (
    <div>
      <div className="soft text-[11px]">Tempo</div>
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
            if (v !== bpm) void act.saveTempo(v)
          }}
        />
      ) : (
        <button
          className="figure text-[15px] whitespace-nowrap hover:underline"
          title="Quarter notes a minute; click to type"
          onClick={() => setTyping(true)}
        >
          {bpm.toFixed(1)}
          <span className="soft text-[13px]">
            {' '}
            {meter.beats}/{meter.unit}
          </span>
        </button>
      )}
    </div>
  )
}
