import { useState } from 'react'
import { setView, useView } from '../session/view'
import { ownDelay } from './own'

/** What is taken off what arrives at the window's own input, in ms: as the browser says, or typed. */
export function DelayForm() {
  const typed = useView((v) => v.inputDelay)
  const [text, setText] = useState((ownDelay() * 1000).toFixed(1))
  const take = () => {
    const ms = Number(text.replace(',', '.'))
    if (text.trim() === '') setView({ inputDelay: -1 })
    else if (ms >= 0 && ms <= 2000) setView({ inputDelay: ms })
    setText((ownDelay() * 1000).toFixed(1))
  }
  return (
    <label className="flex items-center gap-2 px-2.5 py-1 text-label">
      <span>Takes off</span>
      <input
        className="input input-xs figure w-[64px]"
        aria-label="Delay that is taken off, in ms"
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Enter') take()
        }}
      />
      <span className="soft text-small">
        ms {typed < 0 ? '(as the browser says)' : '(typed; empty: as the browser says)'}
      </span>
    </label>
  )
}
