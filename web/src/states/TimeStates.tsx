import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { useEffect } from 'react'
import type { Clip, SeenPoint, Timeline } from '../api/types'
import { PlumbScale } from '../bench/Plumb'
import { ClipView } from '../clips/ClipView'
import { lens } from '../document/time'
import { Points } from '../lines/Points'
import { PassageBand } from '../passages/PassageBand'
import { setView } from '../session/view'
import { Part } from './Part'
import { level, scales } from './states'

const WIDTH = 560
const SECOND = 48000

/* A waveform of its own: no server is asked. */
const shapes = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } })
shapes.setQueryData(
  ['overview', 'drawn'],
  Uint8Array.from({ length: 800 }, (_, i) => (i % 2 ? 90 : 170) * Math.abs(Math.cos(i / 34))),
)
const passage = (id: string, name: string, from: number, off = false) => ({
  id,
  name,
  off,
  from: from * SECOND,
  to: (from + 2) * SECOND,
  rows: [],
})

const timeline = {
  end: 10 * SECOND,
  passages: [
    passage('a', 'as it is', 0.2),
    passage('chosen', 'selected', 3.4),
    passage('off', 'off', 6.6, true),
  ],
} as unknown as Timeline

const clip = (id: string, more: Partial<Clip> = {}) =>
  ({ id, name: id, audio: 'drawn', gain: 0, offset: 0, frames: 2 * SECOND, ...more }) as Clip

const points = [0.2, 0.8, 0.4, 0.6].map(
  (place, i) => ({ tick: i, place, frame: i, shape: 'ramp' }) as unknown as SeenPoint,
)

const nothing = () => undefined

/** What stands in time or hangs under a stage, in every state. */
export function TimeStates() {
  useEffect(() => void setView({ stage: 'chosen' }), [])
  const seen = lens(timeline, WIDTH, 0, 0)
  return (
    <>
      <Part title="Plumbs">
        {scales.map(([name, state]) => (
          <PlumbScale
            key={name}
            owner={name}
            param={level}
            value={-12}
            of={name}
            caption={name}
            theirs={state.theirs}
            refused={state.refused ?? false}
            moved={state.moved ?? null}
            set={nothing}
            onLine={nothing}
            onMoves={nothing}
          />
        ))}
      </Part>
      <Part title="Clips">
        <div className="relative h-12" style={{ width: WIDTH }}>
          <QueryClientProvider client={shapes}>
            <ClipView clip={clip('as it is')} row="" start={0} lens={seen} width={WIDTH} height={44} />
            <ClipView
              clip={clip('lower', { gain: -12 })}
              row=""
              start={2.5 * SECOND}
              lens={seen}
              width={WIDTH}
              height={44}
            />
          </QueryClientProvider>
        </div>
      </Part>
      <Part title="Points">
        <svg width={WIDTH} height={48} aria-label="Points, the third selected">
          <Points
            points={points}
            seenAt={(p) => ({ x: 20 + p.frame * 60, y: 44 - p.place * 40 })}
            chosen={(p) => p.tick === 2}
          />
        </svg>
      </Part>
      <Part title="Passages">
        <div className="relative h-7" style={{ width: WIDTH }}>
          <PassageBand timeline={timeline} lens={seen} mark={null} width={WIDTH} />
        </div>
      </Part>
    </>
  )
}
