import { type ReactNode, useEffect, useRef } from 'react'
import { firstIn } from './first'
import { useReturn } from './useReturn'

/** A question over everything, for what nothing goes on without. Escape puts it away, and the focus goes back where it
    was. */
export function Modal({
  title,
  width,
  children,
  onClose,
}: {
  title: string
  width: number
  children: ReactNode
  onClose: () => void
}) {
  const ref = useRef<HTMLDialogElement>(null)
  useReturn()
  useEffect(() => {
    ref.current?.showModal()
    firstIn(ref.current)?.focus()
  }, [])
  return (
    <dialog
      ref={ref}
      className="modal"
      aria-label={title}
      onCancel={(e) => {
        e.preventDefault()
        onClose()
      }}
      onKeyDown={(e) => e.stopPropagation()}
      onClick={(e) => e.target === ref.current && onClose()}
    >
      <div
        className="modal-box flex max-h-[85vh] flex-col p-5"
        style={{ width, maxWidth: '94vw', border: '1px solid var(--hair)' }}
      >
        <div className="mb-3 flex items-center justify-between">
          <h2 className="text-head font-bold">{title}</h2>
          <button className="btn btn-xs btn-ghost" onClick={onClose}>
            Close <kbd className="kbd kbd-xs">Esc</kbd>
          </button>
        </div>
        <div data-body className="-m-1 min-h-0 overflow-y-auto p-1">
          {children}
        </div>
      </div>
    </dialog>
  )
}
