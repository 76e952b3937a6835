import { type FocusEvent, type ReactNode, useState } from 'react'

type Item = { text: string; run: () => void; key?: string; off?: boolean } | null

/** A button with a menu; the menu goes when something was chosen. */
export function Menu({
  label,
  items,
  children,
  className = 'btn btn-xs btn-outline font-normal',
}: {
  label: string
  items: Item[]
  children: ReactNode
  className?: string
}) {
  // fixed to the window, so that a list it stands in does not cut it off
  const [at, setAt] = useState<{ right: number; top?: number; bottom?: number }>({ right: 0 })
  const open = (e: FocusEvent<HTMLElement>) => {
    const box = e.currentTarget.getBoundingClientRect()
    const right = Math.max(4, Math.min(innerWidth - box.right, innerWidth - 244))
    setAt(
      box.bottom > innerHeight * 0.55
        ? { right, bottom: innerHeight - box.top + 2 }
        : { right, top: box.bottom + 2 },
    )
  }
  return (
    <span className="dropdown" onFocus={open}>
      <button type="button" tabIndex={0} className={className} aria-label={label} aria-haspopup="menu">
        {children}
      </button>
      <ul
        tabIndex={0}
        className="dropdown-content menu menu-sm z-40 max-h-[60vh] w-60 flex-nowrap overflow-y-auto rounded border p-1 shadow-sm"
        style={{
          background: 'var(--card)',
          borderColor: 'var(--hair)',
          position: 'fixed',
          left: 'auto',
          ...at,
        }}
      >
        {items.map(
          (x) =>
            x && (
              <li key={x.text} className={x.off ? 'menu-disabled' : ''}>
                <button
                  type="button"
                  disabled={x.off}
                  onClick={(e) => {
                    e.stopPropagation()
                    ;(document.activeElement as HTMLElement | null)?.blur()
                    x.run()
                  }}
                >
                  <span className="grow">{x.text}</span>
                  {x.key && <kbd className="kbd kbd-xs">{x.key}</kbd>}
                </button>
              </li>
            ),
        )}
      </ul>
    </span>
  )
}
