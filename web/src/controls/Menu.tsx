import { type MouseEvent, type ReactNode, useId, useRef } from 'react'

export type Item = { text: string; run: () => void; key?: string; off?: boolean } | null | false

/** A button with a menu over everything else; the menu goes when something was chosen. */
export function Menu({
  label,
  items,
  children,
  foot,
  className = 'btn btn-xs btn-outline font-normal',
}: {
  label: string
  items: Item[]
  children: ReactNode
  /** What stands under the items; it is given a way to close the menu. */
  foot?: (shut: () => void) => ReactNode
  className?: string
}) {
  const id = useId()
  const list = useRef<HTMLUListElement>(null)
  const shut = () => list.current?.hidePopover()
  const place = (e: MouseEvent<HTMLElement>) => {
    e.stopPropagation()
    const box = e.currentTarget.getBoundingClientRect()
    const s = list.current!.style
    const low = box.bottom > innerHeight * 0.55
    s.left = `${Math.max(4, Math.min(box.right - 240, innerWidth - 244))}px`
    if (box.right < 240) s.left = `${box.left}px`
    s.top = low ? 'auto' : `${box.bottom + 2}px`
    s.bottom = low ? `${innerHeight - box.top + 2}px` : 'auto'
    // as high as there is room: what is longer scrolls, to its very end
    s.maxHeight = `${(low ? box.top : innerHeight - box.bottom) - 8}px`
  }
  return (
    <>
      <button
        type="button"
        className={className}
        aria-label={label}
        aria-haspopup="menu"
        popoverTarget={id}
        onClick={place}
      >
        {children}
      </button>
      <ul
        id={id}
        ref={list}
        popover="auto"
        className="menu menu-sm pointer-events-auto m-0 w-60 flex-nowrap overflow-y-auto rounded border p-1 shadow-sm [&:not(:popover-open)]:hidden"
        style={{
          position: 'fixed',
          right: 'auto',
          background: 'var(--card)',
          borderColor: 'var(--hair)',
          color: 'var(--ink)',
        }}
        onClick={(e) => e.stopPropagation()}
        onKeyDown={(e) => e.key === 'Escape' && e.stopPropagation()}
        onToggle={(e) => e.newState === 'open' && e.currentTarget.querySelector('button')?.focus()}
      >
        {items.map(
          (x) =>
            x && (
              <li key={x.text} className={x.off ? 'menu-disabled' : ''}>
                <button
                  type="button"
                  disabled={x.off}
                  onClick={() => {
                    shut()
                    x.run()
                  }}
                >
                  <span className="grow">{x.text}</span>
                  {x.key && <kbd className="kbd kbd-xs justify-self-end">{x.key}</kbd>}
                </button>
              </li>
            ),
        )}
        {foot?.(shut)}
      </ul>
    </>
  )
}
