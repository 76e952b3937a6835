import { type KeyboardEvent, type MouseEvent, type ReactNode, useRef, useState } from 'react'
import { inside, type Items } from './MenuEntry'
import { MenuOpen, type Place } from './MenuOpen'
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

/** A button with a menu. Of very many menus one is open at a time: the others are only their buttons. */
export function Menu({
  label,
  items,
  children,
  foot,
  named,
  className = 'btn btn-xs btn-outline font-normal',
}: Props) {
  const [place, setPlace] = useState<Place | null>(null)
  const button = useRef<HTMLButtonElement>(null)
  useMenuHere(named, items)
  useOpenedAt(named, (x, y) => setPlace({ x, y, last: false }))
  const open = place !== null
  const show = (last: boolean) => setPlace({ last })
  const press = (e: MouseEvent) => {
    e.stopPropagation()
    if (open) setPlace(null)
    else show(false)
  }
  const arrow = (e: KeyboardEvent) => {
    const leads = e.key === 'ArrowDown' || e.key === 'ArrowUp'
    if (open || leads) inside(e)
    if (open || !leads) return
    e.preventDefault()
    show(e.key === 'ArrowUp')
  }
  return (
    <>
      <button
        type="button"
        ref={button}
        className={className}
        aria-label={label}
        aria-haspopup="menu"
        aria-expanded={open}
        onClick={press}
        onKeyDown={arrow}
      >
        {children}
      </button>
      {place && <MenuOpen {...{ label, items, foot, place, button }} shut={() => setPlace(null)} />}
    </>
  )
}
