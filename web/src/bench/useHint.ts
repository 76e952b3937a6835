import { type FocusEvent, type MouseEvent, useState } from 'react'

/** What the control under the hand does, as it says itself, and what a panel needs to notice it. */
export function useHint() {
  const [hint, setHint] = useState('')
  const look = (e: FocusEvent | MouseEvent) =>
    setHint((e.target as HTMLElement).closest<HTMLElement>('[data-says]')?.dataset.says ?? '')
  return { hint, watch: { onFocus: look, onMouseOver: look, onMouseLeave: () => setHint('') } }
}
