import { useEffect } from 'react'
import { setSession, useSession } from '../session/store'
import { useRemarks } from './useRemarks'

/** The remarks that are not settled; marks on the board are told where they are. */
export function useOpen() {
  const views = useRemarks()
  const remarks = useSession((s) => s.project?.remarks)
  const settled = new Set(remarks?.filter((r) => r.settled).map((r) => r.id))
  const open = views.filter((v) => !settled.has(v.id))
  const key = JSON.stringify(open)
  useEffect(() => {
    const said: Record<string, { open: number; waits: boolean }> = {}
    for (const v of open)
      for (const at of [v.row, v.node, v.clip, v.line].filter(Boolean))
        said[at] = { open: (said[at]?.open ?? 0) + 1, waits: v.waits || !!said[at]?.waits }
    setSession({ said })
    // eslint-disable-next-line react-hooks/exhaustive-deps -- as it says
  }, [key])
  return open
}
