import { type MouseEvent, useEffect, useRef } from 'react'

/* Menus that open where something was pressed with the other button, or by the menu key: the same that stand behind a
   button elsewhere. */

const OPEN = 'shoal-menu'

type At = { name: string; x: number; y: number }

/** For so many pictures it is waited for that the menu is there: what it stands on may have to be asked for. */
const PATIENCE = 60

let latest: At | null = null

/** Opens the menu with a name at a place, once it is there. */
export function openMenu(name: string, e: { clientX: number; clientY: number; preventDefault: () => void }) {
  e.preventDefault()
  const detail: At = { name, x: e.clientX, y: e.clientY }
  latest = detail
  let left = PATIENCE
  const attempt = () => {
    const nobody = window.dispatchEvent(new CustomEvent(OPEN, { detail, cancelable: true }))
    if (nobody && latest === detail && left-- > 0) requestAnimationFrame(attempt)
  }
  requestAnimationFrame(() => requestAnimationFrame(attempt))
}

/** What lets a press of the other button on something open a menu; what must be there for that is put there before. */
export const opens = (name: string, before?: (e: MouseEvent) => unknown) => (e: MouseEvent) => {
  e.stopPropagation()
  before?.(e)
  openMenu(name, e)
}

/** Lets a menu with a name be opened at a place. */
export function useOpenedAt(name: string | undefined, open: (x: number, y: number) => void) {
  const last = useRef(open)
  useEffect(() => {
    last.current = open
  })
  useEffect(() => {
    if (!name) return
    const hear = (e: Event) => {
      const at = (e as CustomEvent<At>).detail
      if (at.name !== name) return
      e.preventDefault()
      last.current(at.x, at.y)
    }
    window.addEventListener(OPEN, hear)
    return () => window.removeEventListener(OPEN, hear)
  }, [name])
}
