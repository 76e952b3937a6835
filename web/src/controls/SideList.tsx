import { type KeyboardEvent, type ReactNode, useEffect, useRef } from 'react'
import { useReturn } from './useReturn'

/** A list at the side that does not cover the board, so that one can go on listening and dragging. */
export function SideList({
  label,
  head,
  children,
  foot,
  onClose,
  onKey,
}: {
  label: string
  head: ReactNode
  children: ReactNode
  foot: ReactNode
  onClose: () => void
  onKey: (e: KeyboardEvent) => void
}) {
  const box = useRef<HTMLElement>(null)
  useReturn()
  useEffect(() => {
    if (!box.current?.contains(document.activeElement)) box.current?.focus()
  }, [])
  return (
    <section
      ref={box}
      tabIndex={-1}
      role="dialog"
      aria-label={label}
      className="fixed top-[86px] right-4 z-40 flex max-h-[76vh] w-[380px] flex-col rounded border p-3 shadow-lg"
      style={{ background: 'var(--card)', borderColor: 'var(--deep)' }}
      onKeyDown={(e) => {
        // what is typed or pressed in it is its own; all other keys are the board's
        if (e.key === 'Escape' || e.target !== e.currentTarget) e.stopPropagation()
        if (e.key === 'Escape') onClose()
        else onKey(e)
      }}
    >
      <div className="mb-2 flex items-center justify-between text-small">
        {head}
        <button className="btn btn-xs btn-ghost" onClick={onClose}>
          Close
        </button>
      </div>
      {children}
      <div className="soft mt-1 text-small">{foot}</div>
    </section>
  )
}
