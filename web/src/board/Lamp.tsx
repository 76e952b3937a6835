import type { MouseEvent } from 'react'

/** A switch of a row that is lit while it is on. */
export function Lamp({
  on,
  label,
  text,
  onClick,
}: {
  on: boolean
  label: string
  text: string
  onClick: (e: MouseEvent) => void
}) {
  return (
    <button
      className="h-6 w-6 shrink-0 rounded-[3px] border text-small font-bold"
      style={
        on
          ? { background: 'var(--ink)', color: 'var(--paper)', borderColor: 'var(--ink)' }
          : { borderColor: 'var(--soft)', color: 'var(--soft)' }
      }
      aria-pressed={on}
      aria-label={label}
      title={label}
      onClick={(e) => {
        e.stopPropagation()
        onClick(e)
      }}
    >
      {text}
    </button>
  )
}
