import type { KeyboardEvent, ReactNode } from 'react'

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
  return (
    <section
      role="dialog"
      aria-label={label}
      className="fixed top-[86px] right-4 z-40 flex max-h-[76vh] w-[380px] flex-col rounded border p-3 shadow-lg"
      style={{ background: 'var(--card)', borderColor: 'var(--deep)' }}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Escape') onClose()
        else onKey(e)
      }}
    >
      <div className="mb-2 flex items-center justify-between text-[12px]">
        {head}
        <button className="btn btn-xs btn-ghost" onClick={onClose}>
          Close
        </button>
      </div>
      {children}
      <div className="soft mt-1 text-[11px]">{foot}</div>
    </section>
  )
}
