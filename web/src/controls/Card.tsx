import { type KeyboardEvent, type ReactNode, useEffect, useRef } from 'react'
import { setView } from '../session/view'
import { firstIn } from './first'
import { useReturn } from './useReturn'

/** What is asked or told beside the board, on the right of the bench: nothing lies over what it is about, and all goes
    on meanwhile. Escape puts it away, and the focus goes back where it was. */
export function Card({
  title,
  label,
  width,
  children,
  foot,
  onClose = () => setView({ dialog: null }),
  onKey,
}: {
  title: ReactNode
  /** What it is called where its title says more than that. */
  label?: string
  width: number
  children: ReactNode
  foot?: ReactNode
  onClose?: () => void
  /** Keys of a list; else what is pressed in it is its own. */
  onKey?: (e: KeyboardEvent) => void
}) {
  const ref = useRef<HTMLElement>(null)
  useReturn()
  useEffect(() => {
    if (ref.current?.contains(document.activeElement)) return
    const first = firstIn(ref.current)
    ;(onKey ? ref.current : (first ?? ref.current))?.focus()
    // eslint-disable-next-line react-hooks/exhaustive-deps -- when it opens
  }, [])
  return (
    <section
      ref={ref}
      tabIndex={-1}
      role="dialog"
      aria-label={label ?? (typeof title === 'string' ? title : undefined)}
      className="flex h-full flex-col px-3.5 pt-2 pb-1.5"
      style={{ width, maxWidth: '86vw', background: 'var(--card)', outline: 'none' }}
      onKeyDown={(e) => {
        // what is typed or pressed in it is its own; all other keys are the board's
        if (e.key === 'Escape' || !onKey || e.target !== e.currentTarget) e.stopPropagation()
        if (e.key === 'Escape') onClose()
        else onKey?.(e)
      }}
    >
      <div className="mb-1 flex h-7 shrink-0 items-center justify-between gap-2">
        <h2 className="min-w-0 truncate text-head font-bold">{title}</h2>
        <button className="btn btn-xs btn-ghost font-normal" onClick={onClose}>
          Close <kbd className="kbd kbd-xs">Esc</kbd>
        </button>
      </div>
      <div data-body className="-m-1 flex min-h-0 flex-1 flex-col overflow-y-auto p-1">
        {children}
      </div>
      {foot && <div className="soft mt-1 text-small">{foot}</div>}
    </section>
  )
}
