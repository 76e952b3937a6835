import { useEffect, useState } from 'react'
import type { Clip } from '../api/types'
import { tryChanges } from '../session/changes'
import { refused } from '../session/store'
import { work } from '../session/works'
import { untreated } from './levels'

/** Lets the clips be heard without their treatment and as loud as with it: nothing is changed, it is only heard so. */
export function WithoutIt({ clips }: { clips: Clip[] }) {
  const [on, setOn] = useState(false)
  const ids = clips.map((c) => c.id).join(' ')
  useEffect(
    () => () => {
      setOn(false)
      void tryChanges([]).catch(refused)
    },
    [ids],
  )
  const turn = async () => {
    if (on) {
      setOn(false)
      return void tryChanges([]).catch(refused)
    }
    try {
      const gains = await work('Measuring with and without', () => untreated(clips))
      await tryChanges([
        { type: 'treatment.give', do: { clips: clips.map((c) => c.id) } },
        ...gains.map((g) => ({ type: 'clip.set' as const, do: g })),
      ])
      setOn(true)
    } catch (e) {
      refused(e)
    }
  }
  return (
    <button
      className={`btn btn-xs font-normal ${on ? 'btn-secondary' : 'btn-outline'}`}
      aria-pressed={on}
      title="Hear it without the treatment, as loud as with it: nothing is changed"
      onClick={() => void turn()}
    >
      Without, as loud
    </button>
  )
}
