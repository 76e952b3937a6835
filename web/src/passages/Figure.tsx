import { useState } from 'react'
import type { Param } from '../api/types'
import { figure, read } from '../controls/format'

/** A value that is typed into; "here" makes it that where the parameter stands. */
export function Figure(p: {
  param: Param
  value: number
  label: string
  onSet: (v: number) => void
  onHere?: () => void
}) {
  const shown = p.param.taper === 'switch' ? (p.value ? 'on' : 'off') : figure(p.param, p.value)
  const [wrong, setWrong] = useState(false)
  const take = (text: string) => {
    setWrong(false)
    if (text.trim() === shown) return
    if (p.onHere && /^here$/i.test(text.trim())) return p.onHere()
    const v = p.param.taper === 'switch' ? (/^(1|on|yes)$/i.test(text.trim()) ? 1 : 0) : read(p.param, text)
    if (v === null) setWrong(true)
    else p.onSet(v)
  }
  return (
    <span className="flex items-baseline gap-0.5">
      <input
        key={shown}
        className={`figure h-[20px] w-[48px] rounded-none border-b bg-transparent px-0.5 text-right text-small ${wrong ? 'outline outline-[var(--caution)]' : ''}`}
        style={{ borderColor: 'var(--soft)' }}
        aria-label={p.label}
        title={p.onHere ? 'Type a value, or “here” for where it stands' : undefined}
        defaultValue={shown}
        onFocus={(e) => e.target.select()}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Enter') e.currentTarget.blur()
          if (e.key === 'Escape') {
            e.currentTarget.value = shown
            e.currentTarget.blur()
          }
        }}
        onBlur={(e) => take(e.target.value)}
      />
      {p.param.unit && <span className="soft text-small">{p.param.unit}</span>}
    </span>
  )
}
