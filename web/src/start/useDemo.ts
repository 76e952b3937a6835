import { useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { answer, api, Cancelled } from '../api/client'
import { refused } from '../session/store'

/** Makes the demo if it is not there, says how far that is, and opens it. */
export function useDemo() {
  const go = useNavigate()
  const [making, setMaking] = useState<AbortController | null>(null)
  const [part, setPart] = useState(0)
  useEffect(() => {
    if (!making) return
    const asks = setInterval(() => {
      void answer(api.GET('/api/demo')).then((m) => setPart(m.part), refused)
    }, 300)
    return () => clearInterval(asks)
  }, [making])
  const open = async () => {
    const c = new AbortController()
    setMaking(c)
    setPart(0)
    try {
      const demo = await answer(api.POST('/api/demo', { signal: c.signal }))
      void go(`/project/${demo.id}`)
    } catch (e) {
      if (!(e instanceof Cancelled)) refused(e)
    }
    setMaking(null)
  }
  return { open, part, making: !!making, cancel: () => making?.abort() }
}
