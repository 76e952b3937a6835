import type { MouseEvent } from 'react'

/** A switch of a row that is lit while it is on. */
export function Lamp({
  on,
  label,
  text,
  live,
  onClick,
}: {
  on: boolean
  /** It is about what is recorded. */
  live?: boolean
  label: string
  text: string
  onClick: (e: MouseEvent) => void
}) {
  const ink = live ? 'var(--live)' : 'var(--ink)'
  return (
    <button
      className="h-6 w-6 shrink-0 rounded-[3px] border text-small font-bold"
      style={
        on
          ? { background: ink, color: 'var(--paper)', borderColor: ink }
          : { borderColor: live ? ink : 'var(--soft)', color: live ? ink : 'var(--soft)' }
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
