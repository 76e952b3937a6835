import { type ReactNode, useLayoutEffect, useRef, useState } from 'react'
import { createPortal } from 'react-dom'
import { scale } from '../theme/size'

/** Something that opens a panel while the pointer or the focus is on it. The panel stands above all else, so
    that rows do not cut it off: below what opens it, or above where there is no room. */
export function Hover(p: { label: string; children: (open: boolean) => ReactNode; panel: () => ReactNode }) {
  const [open, setOpen] = useState(false)
  const anchor = useRef<HTMLSpanElement>(null)
  const panel = useRef<HTMLDivElement>(null)
  useLayoutEffect(() => {
    const el = panel.current
    if (!open || !el || !anchor.current) return
    const a = anchor.current.getBoundingClientRect()
    const k = scale()
    const below = a.bottom / k + el.offsetHeight < innerHeight / k
    el.style.left = `${Math.max(4, Math.min(a.left / k, innerWidth / k - el.offsetWidth - 4))}px`
    el.style.top = `${below ? a.bottom / k - 1 : Math.max(4, a.top / k - el.offsetHeight + 1)}px`
  })
  return (
    <span
      ref={anchor}
      onMouseEnter={() => setOpen(true)}
      onMouseLeave={() => setOpen(false)}
      onFocus={() => setOpen(true)}
      onBlur={(e) => {
        const to = e.relatedTarget
        if (!anchor.current?.contains(to) && !panel.current?.contains(to)) setOpen(false)
      }}
    >
      {p.children(open)}
      {open &&
        createPortal(
          <div
            ref={panel}
            role="group"
            aria-label={p.label}
            className="fixed z-40 flex flex-col gap-0.5 rounded border p-1.5 shadow-sm"
            style={{ background: 'var(--shoal-1)', borderColor: 'var(--deep)' }}
            onClick={(e) => e.stopPropagation()}
          >
            {p.panel()}
          </div>,
          document.body,
        )}
    </span>
  )
}
