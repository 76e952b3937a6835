import { useState } from 'react'
import type { Channel } from '../api/types'
import { Toggle } from '../controls/Pick'
import { sendTo } from './gestures'

type Props = { from: Channel[]; returns: Channel[]; loud: boolean; onDone: () => void }

/** Returns that are there: pressed, the rows are sent to one. */
export function Existing({ from, returns, loud, onDone }: Props) {
  const [apart, setApart] = useState(false)
  const how = { ...(loud && { level: 0 }), ...(apart && { apart }) }
  return (
    <>
      <p className="soft mt-4 mb-1 text-small">or to one that is there</p>
      {from.length > 1 && (
        <Toggle
          label="from left to right"
          says="The sends are panned: the first row to the left, the last to the right."
          on={apart}
          onSet={setApart}
        />
      )}
      <div className="flex flex-wrap gap-1.5">
        {returns.map((r) => (
          <button
            key={r.id}
            className="btn btn-sm btn-outline font-normal"
            disabled={from.every((c) => c.sends.some((s) => s.to === r.id))}
            onClick={() => void sendTo(from, r, how).then(onDone)}
          >
            {r.name}
          </button>
        ))}
      </div>
    </>
  )
}
