import { useEffect, useRef } from 'react'

/* Menus that open where something was pressed with the other button, or by the menu key: the same that stand behind a
   button elsewhere. */

const OPEN = 'shoal-menu'

type At = { name: string; x: number; y: number }

/** Opens the menu with a name at a place, once it is there. */
export function openMenu(name: string, e: { clientX: number; clientY: number; preventDefault: () => void }) {
  e.preventDefault()
  const detail: At = { name, x: e.clientX, y: e.clientY }
  requestAnimationFrame(() =>
    requestAnimationFrame(() => window.dispatchEvent(new CustomEvent(OPEN, { detail }))),
  )
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
      if (at.name === name) last.current(at.x, at.y)
    }
    window.addEventListener(OPEN, hear)
    return () => window.removeEventListener(OPEN, hear)
  }, [name])
}
