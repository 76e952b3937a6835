import type { Step } from '../api/types'
import { minutes } from '../document/time'
import { select } from '../session/selected'
import { useSession } from '../session/store'
import { setView } from '../session/view'
import { Shape } from '../soundings/Diamond'
import { printAgain, putChainBack } from './actions'
import { ThenNow } from './ThenNow'

const states: Record<Step['state'], string> = {
  holds: 'holds',
  further: 'holds; something further back has changed',
  changed: 'has changed',
  alone: 'stands alone: its row has left the song',
  source: '',
}

/** One step, with those before it under it. */
export function StepView({ step, first = false }: { step: Step; first?: boolean }) {
  const changed = step.state === 'changed'
  return (
    <li className={first ? '' : 'mt-2 border-l pl-4'} style={{ borderColor: 'var(--deep)' }}>
      <div
        className="rounded-[4px] border px-3 py-1.5"
        data-state={step.state}
        style={{
          background: 'var(--shoal-1)',
          borderColor: changed ? 'var(--caution)' : 'var(--deep)',
        }}
      >
        <p className="flex items-baseline gap-3 text-label">
          <span className="min-w-0 grow font-semibold">{step.title}</span>
          <span
            className="flex shrink-0 items-center gap-1 text-small"
            style={{ color: changed ? 'var(--caution)' : undefined }}
          >
            {changed && <Shape weight="caution" />}
            {states[step.state]}
          </span>
        </p>
        <About step={step} />
        {step.since.length > 0 && <Since step={step} />}
        <Does step={step} first={first} />
      </div>
      {step.of.length > 0 && (
        <ul>
          {step.of.map((x) => (
            <StepView key={x.audio} step={x} />
          ))}
        </ul>
      )}
    </li>
  )
}

/** Who made it, when, and of which part of the song. */
function About({ step }: { step: Step }) {
  const rate = useSession((s) => s.project!.sampleRate)
  if (step.kind === 'source') return <p className="soft text-small">the first sound</p>
  const at = step.at ? new Date(step.at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' }) : ''
  const range =
    step.kind !== 'permanent' && `${minutes((step.from ?? 0) / rate)} to ${minutes((step.to ?? 0) / rate)}`
  return <p className="soft text-small">{[step.by, at, range].filter(Boolean).join(' · ')}</p>
}

/** What has changed since, by whom and when. */
function Since({ step }: { step: Step }) {
  return (
    <ul className="mt-1 text-small" aria-label="Changed since">
      {step.since.map((x) => (
        <li key={x.says}>
          Since then: {x.says}
          {x.by && (
            <span className="soft">
              {' '}
              ({x.by}
              {x.at && `, ${new Date(x.at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}`})
            </span>
          )}
        </li>
      ))}
    </ul>
  )
}

/** What can be done from here. */
function Does({ step, first }: { step: Step; first: boolean }) {
  const row = useSession((s) => s.project!.channels.find((c) => c.id === step.row))
  if (step.kind === 'source' || step.kind === 'permanent' || !row) return null
  const press = 'btn btn-xs btn-outline font-normal'
  return (
    <p className="mt-1.5 flex flex-wrap gap-1.5">
      {step.state === 'changed' && (
        <>
          <ThenNow step={step} />
          {first && (
            <button className={press} onClick={() => void printAgain(step)}>
              Print again
            </button>
          )}
          {step.kind !== 'point' && (
            <button className={press} onClick={() => void putChainBack(step)}>
              Put the chain back
            </button>
          )}
        </>
      )}
      <button
        className={press}
        onClick={() => {
          select(row.id)
          setView({ dialog: null, bench: true })
        }}
      >
        Go to {row.name}
      </button>
    </p>
  )
}
