import { useEffect, useRef, useState } from 'react'
import type { Step } from '../api/types'
import { refused, useSession } from '../session/store'
import { togglePlay } from '../session/transport'
import { view } from '../session/view'
import { besideNow } from './actions'
import { Both, type Which } from './hearing'

/** Hears a print as it is and as it would be now, one against the other, as loud as each other. */
export function ThenNow({ step }: { step: Step }) {
  const rate = useSession((s) => s.project!.sampleRate)
  const [heard, setHeard] = useState<Which | 'loading' | null>(null)
  const both = useRef<Both | null>(null)
  const end = () => {
    both.current?.stop()
    both.current = null
    setHeard(null)
  }
  useEffect(() => end, [])
  const begin = async () => {
    setHeard('loading')
    try {
      const of = await besideNow(step)
      if (view().playing) void togglePlay()
      both.current = await Both.start(of, rate, end)
      setHeard('then')
    } catch (e) {
      setHeard(null)
      refused(e)
    }
  }
  if (heard === null || heard === 'loading')
    return (
      <button
        className="btn btn-xs btn-outline font-normal"
        disabled={heard === 'loading'}
        onClick={() => void begin()}
      >
        Hear then and now
      </button>
    )
  const hear = (which: Which) => {
    both.current?.hear(which)
    setHeard(which)
  }
  return (
    <span className="join" role="group" aria-label="What is heard">
      {(['then', 'now'] as const).map((which) => (
        <button
          key={which}
          className={`btn btn-xs join-item font-normal ${heard === which ? 'btn-primary' : 'btn-outline'}`}
          aria-pressed={heard === which}
          onClick={() => hear(which)}
        >
          {which === 'then' ? 'Then' : 'Now'}
        </button>
      ))}
      <button className="btn btn-xs btn-outline join-item font-normal" onClick={end}>
        Stop
      </button>
    </span>
  )
}
