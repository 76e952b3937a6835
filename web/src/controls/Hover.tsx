import {
  autoUpdate,
  flip,
  FloatingPortal,
  safePolygon,
  shift,
  useDismiss,
  useFloating,
  useFocus,
  useHover,
  useInteractions,
} from '@floating-ui/react'
import { type ReactNode, useState } from 'react'

/** Something that opens a panel while the pointer or the focus is on it. The panel stands above all else, so
    that rows do not cut it off: below what opens it, or above where there is no room. */
export function Hover(p: { label: string; children: (open: boolean) => ReactNode; panel: () => ReactNode }) {
  const [open, setOpen] = useState(false)
  const { refs, floatingStyles, context } = useFloating({
    open,
    onOpenChange: setOpen,
    placement: 'bottom-start',
    strategy: 'fixed',
    whileElementsMounted: autoUpdate,
    middleware: [flip(), shift({ padding: 4 })],
  })
  const { getReferenceProps, getFloatingProps } = useInteractions([
    useHover(context, { handleClose: safePolygon() }),
    useFocus(context, { visibleOnly: false }),
    useDismiss(context),
  ])
  return (
    <span ref={refs.setReference} {...getReferenceProps()}>
      {p.children(open)}
      {open && (
        <FloatingPortal>
          <div
            ref={refs.setFloating}
            role="group"
            aria-label={p.label}
            className="z-40 flex flex-col gap-0.5 rounded border p-1.5 shadow-sm"
            style={{ ...floatingStyles, background: 'var(--shoal-1)', borderColor: 'var(--deep)' }}
            {...getFloatingProps({ onClick: (e) => e.stopPropagation() })}
          >
            {p.panel()}
          </div>
        </FloatingPortal>
      )}
    </span>
  )
}
