import { useState } from 'react'
import { useSession } from '../session/store'
import { hearLevel } from './hearing'

/** How loud one hears oneself, in dB. */
export function HearForm() {
  const level = useSession((s) => s.hearLevel)
  const [text, setText] = useState(String(level))
  const take = () => {
    const db = Number(text.replace(',', '.').replace('−', '-'))
    if (text.trim() !== '' && db > -60 && db <= 12) hearLevel(db)
    else setText(String(level))
  }
  return (
    <label className="flex items-center gap-2 px-2.5 py-1 text-label">
      <span>How loud</span>
      <input
        className="input input-xs figure w-[64px]"
        aria-label="How loud you hear yourself, in dB"
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Enter') take()
        }}
      />
      <span className="soft text-small">dB, for you only</span>
    </label>
  )
}
