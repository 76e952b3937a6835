import { useState } from 'react'
import type { Remark, RemarkView } from '../api/types'
import { when } from '../crew/HandedOver'
import { Mark } from '../crew/Mark'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { locate, setLoop } from '../session/transport'
import { setView } from '../session/view'
import { Saying } from './Saying'
import { answerTo, remove, settle } from './say'

/** A remark with its answers: where it is about, and what can be done with it. */
export function Thread({ of: r, at }: { of: Remark; at: RemarkView }) {
  const [answering, setAnswering] = useState(false)
  const me = useSession((s) => s.me?.id)
  const may = useSession((s) => s.role !== 'listener')
  const told = [...new Set(r.said.map((s) => s.by.person))].filter((p) => p !== me)
  return (
    <article
      tabIndex={-1}
      className="rounded border p-2"
      style={{ borderColor: at.waits ? 'var(--ink)' : 'var(--hair)', background: 'var(--paper)' }}
      aria-label={`Remark about ${at.called}${at.waits ? ', for you' : ''}`}
    >
      <div className="mb-1 flex items-center gap-1.5">
        {at.there ? (
          <button className="truncate text-left font-semibold underline" onClick={() => goTo(at)}>
            {at.called}
          </button>
        ) : (
          <span className="truncate">
            <b className="struck">{at.called}</b> <span className="soft">is no longer there</span>
          </span>
        )}
        {at.waits && <span className="ml-auto shrink-0 text-small font-bold">For you</span>}
        {r.settled && (
          <span className="soft ml-auto shrink-0 text-small">Settled by {r.settled.by.name}</span>
        )}
      </div>
      {r.said.map((s) => (
        <div key={s.id} className="mb-1.5 flex gap-2">
          <Mark id={s.by.person} name={s.by.name} says={s.by.name} />
          <div className="min-w-0">
            <p className="soft text-small">
              {s.by.name}, {when(s.time)}
              {s.to?.length ? `, to ${s.to.map((x) => x.name).join(' and ')}` : ''}
            </p>
            <p className="whitespace-pre-wrap" style={{ overflowWrap: 'anywhere' }}>
              {s.text}
            </p>
          </div>
        </div>
      ))}
      {answering ? (
        <Saying
          label={`Answer about ${at.called}`}
          act="Answer"
          told={told}
          autoFocus
          onSay={async (text, to) => {
            const done = await answerTo(r.id, text, to)
            if (done) setAnswering(false)
            return done
          }}
        />
      ) : (
        <div className="flex gap-1">
          <button className="btn btn-xs btn-outline font-normal" onClick={() => setAnswering(true)}>
            Answer
          </button>
          <button
            className="btn btn-xs btn-outline font-normal"
            onClick={() => void settle(r.id, !r.settled)}
          >
            {r.settled ? 'Open it again' : 'Settle it'}
          </button>
          {may && (
            <button className="btn btn-xs btn-ghost ml-auto font-normal" onClick={() => void remove(r.id)}>
              Remove
            </button>
          )}
        </div>
      )}
    </article>
  )
}

/** To the place: it is selected, and its range drawn and played from. The remarks stay open. */
function goTo(at: RemarkView) {
  if (at.row) select(at.row, at.node)
  setView({ clips: at.clip ? [at.clip] : [], dialog: { kind: 'remarks' } })
  if (at.to > 0) {
    setLoop({ from: at.from, to: at.to, name: at.called }, false)
    locate(at.from)
  }
}
