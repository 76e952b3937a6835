import { useEffect, useState } from 'react'

let giving = false

/** Reports whether the focus comes to a thing only because it had it before: nobody went there, so it selects nothing. */
export const isGivenBack = () => giving

/** Gives the focus back, when what uses this goes, to what had it before. It is noted before anything in it takes
    the focus. */
export function useReturn() {
  const [before] = useState(() => document.activeElement as HTMLElement | null)
  useEffect(
    () => () => {
      giving = true
      if (before?.isConnected && before !== document.body) before.focus()
      giving = false
    },
    [before],
  )
}
