import { useEffect, useState } from 'react'

/** Gives the focus back, when what uses this goes, to what had it before. It is noted before anything in it takes
    the focus. */
export function useReturn() {
  const [before] = useState(() => document.activeElement as HTMLElement | null)
  useEffect(
    () => () => {
      if (before?.isConnected && before !== document.body) before.focus()
    },
    [before],
  )
}
