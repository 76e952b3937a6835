import { useEffect, useState } from 'react'
import type { Thing } from '../api/types'
import { refused } from '../session/store'
import { hear, hush } from './hearing'

/** Which thing is heard, and how; turning to one begins it, turning to it again ends it. It ends with its card. */
export function useHearing() {
  const [now, setNow] = useState({ of: '', how: '' })
  useEffect(() => () => void hush(), [])
  const end = () => setNow({ of: '', how: '' })
  const turn = (t: Thing) => {
    if (now.of === t.id) {
      end()
      void hush()
      return
    }
    setNow({ of: t.id, how: '' })
    hear(t, () => setNow((n) => (n.of === t.id ? { of: '', how: '' } : n))).then(
      (how) => setNow((n) => (n.of === t.id ? { of: t.id, how } : n)),
      (e: unknown) => {
        end()
        refused(e)
      },
    )
  }
  return { ...now, turn }
}
