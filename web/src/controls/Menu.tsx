import {
  autoUpdate,
  flip,
  FloatingFocusManager,
  FloatingList,
  FloatingPortal,
  offset,
  shift,
  size,
  useClick,
  useDismiss,
  useFloating,
  useInteractions,
  useListNavigation,
  useRole,
  useTypeahead,
} from '@floating-ui/react'
import { type ReactNode, useRef, useState } from 'react'
import { scale } from '../theme/size'
import { Entry, inside, type Items, offered, Open } from './MenuEntry'
import { useOpenedAt } from './menuAt'
import { useMenuHere } from './menusHere'

type Props = {
  label: string
  items: Items
  children: ReactNode
  /** What stands under the items; it is given a way to close the menu. */
  foot?: (shut: () => void) => ReactNode
  className?: string
  /** The name by which it opens where something is pressed with the other button (see openMenu). */
  named?: string
}

/** A button with a menu over everything else, as high as there is room. Arrow keys and letters lead through it; it goes
    when something was chosen. */
export function Menu({
  label,
  items,
  children,
  foot,
  named,
  className = 'btn btn-xs btn-outline font-normal',
}: Props) {
  const [open, setOpen] = useState(false)
  const [active, setActive] = useState<number | null>(null)
  const elements = useRef<(HTMLElement | null)[]>([])
  const labels = useRef<(string | null)[]>([])
  const anchor = useRef<HTMLButtonElement>(null)
  const back = () => anchor.current?.focus()
  const { refs, x, y, strategy, context } = useFloating({
    open,
    onOpenChange: (to, _, reason) => {
      setOpen(to)
      if (reason === 'escape-key') back()
    },
    placement: 'bottom-end',
    strategy: 'fixed',
    whileElementsMounted: autoUpdate,
    middleware: [
      offset(2),
      flip(),
      shift({ padding: 4 }),
      size({
        padding: 6,
        apply: ({ availableHeight, elements: { floating } }) => {
          floating.style.maxHeight = `${Math.max(120, availableHeight / scale())}px`
        },
      }),
    ],
  })
  useMenuHere(named, items)
  useOpenedAt(named, (x, y) => {
    refs.setPositionReference({ getBoundingClientRect: () => new DOMRect(x, y, 0, 0) })
    setOpen(true)
  })
  const { getReferenceProps, getFloatingProps, getItemProps } = useInteractions([
    useClick(context),
    useDismiss(context),
    useRole(context, { role: 'menu' }),
    useListNavigation(context, { listRef: elements, activeIndex: active, onNavigate: setActive, loop: true }),
    useTypeahead(context, { listRef: labels, activeIndex: active, onMatch: setActive }),
  ])
  /** What is chosen may take the focus elsewhere: it comes back before that. */
  const shut = () => {
    setOpen(false)
    back()
  }
  return (
    <>
      <button
        type="button"
        ref={(b) => {
          anchor.current = b
          refs.setReference(b)
        }}
        className={className}
        aria-label={label}
        {...getReferenceProps({
          onClick: (e) => {
            refs.setPositionReference(anchor.current) // it may have stood elsewhere
            e.stopPropagation()
          },
          onKeyDown: (e) => (open || e.key === 'ArrowDown' || e.key === 'ArrowUp') && inside(e),
        })}
      >
        {children}
      </button>
      {open && (
        <FloatingPortal>
          <FloatingFocusManager context={context} modal={false} initialFocus={0} returnFocus={false}>
            <div
              ref={refs.setFloating}
              className="menu menu-sm pointer-events-auto z-50 w-[260px] flex-nowrap overflow-y-auto rounded border p-1 shadow-sm"
              style={{
                position: strategy,
                left: x / scale(),
                top: y / scale(),
                background: 'var(--card)',
                borderColor: 'var(--hair)',
                color: 'var(--ink)',
              }}
              aria-label={label}
              {...getFloatingProps({ onClick: (e) => e.stopPropagation(), onKeyDown: inside })}
            >
              <Open value={{ active, of: getItemProps }}>
                <FloatingList elementsRef={elements} labelsRef={labels}>
                  {offered(items).map(
                    (x) =>
                      x &&
                      ('over' in x ? (
                        <span key={x.over} role="presentation" className="soft px-2.5 pt-1.5 text-small">
                          {x.over}
                        </span>
                      ) : (
                        <Entry key={x.text} item={x} shut={shut} />
                      )),
                  )}
                  {foot?.(shut)}
                </FloatingList>
              </Open>
            </div>
          </FloatingFocusManager>
        </FloatingPortal>
      )}
    </>
  )
}
