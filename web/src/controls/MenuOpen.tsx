import {
  autoUpdate,
  flip,
  FloatingFocusManager,
  FloatingList,
  FloatingPortal,
  offset,
  shift,
  size,
  useDismiss,
  useFloating,
  useInteractions,
  useListNavigation,
  useTypeahead,
} from '@floating-ui/react'
import { type ReactNode, type RefObject, useEffect, useLayoutEffect, useRef, useState } from 'react'
import { scale } from '../theme/size'
import { Entry, inside, type Items, offered, Open } from './MenuEntry'

/** Where a menu opens: at its button, or where something was pressed; and whether its last entry is the first to have the focus. */
export type Place = { x?: number; y?: number; last: boolean }

type Props = {
  label: string
  items: Items
  foot?: (shut: () => void) => ReactNode
  place: Place
  button: RefObject<HTMLButtonElement | null>
  shut: () => void
}

/** An open menu over everything else, as high as there is room. Arrow keys and letters lead through it; it goes when something
    was chosen. */
export function MenuOpen({ label, items, foot, place, button, shut }: Props) {
  const [active, setActive] = useState<number | null>(place.last ? null : 0) // an arrow key leads on from there at once
  const elements = useRef<(HTMLElement | null)[]>([])
  const labels = useRef<(string | null)[]>([])
  const back = () => button.current?.focus()
  const { refs, x, y, strategy, context } = useFloating({
    open: true,
    onOpenChange: (_open, _event, reason) => {
      shut()
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
  useLayoutEffect(() => {
    refs.setReference(button.current)
    const { x, y } = place
    if (x !== undefined && y !== undefined)
      refs.setPositionReference({ getBoundingClientRect: () => new DOMRect(x, y, 0, 0) })
  }, [refs, button, place])
  const { getFloatingProps, getItemProps } = useInteractions([
    useDismiss(context),
    useListNavigation(context, { listRef: elements, activeIndex: active, onNavigate: setActive, loop: true }),
    useTypeahead(context, { listRef: labels, activeIndex: active, onMatch: setActive }),
  ])
  useEffect(() => {
    if (place.last) elements.current.findLast((x) => x && !(x as HTMLButtonElement).disabled)?.focus()
  }, [place])
  /** What is chosen may take the focus elsewhere: it comes back before that. */
  const chosen = () => {
    shut()
    back()
  }
  return (
    <FloatingPortal>
      <FloatingFocusManager context={context} modal={false} initialFocus={0} returnFocus={false}>
        <div
          ref={refs.setFloating}
          role="menu"
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
                    <Entry key={x.text} item={x} shut={chosen} />
                  )),
              )}
              {foot?.(chosen)}
            </FloatingList>
          </Open>
        </div>
      </FloatingFocusManager>
    </FloatingPortal>
  )
}
