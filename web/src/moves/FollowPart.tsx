import type { Mover, Param } from '../api/types'
import * as moves from '../live/moves'
import { TapPick } from '../routing/TapPick'
import { Settle } from './Settle'

type Follow = NonNullable<Mover['follow']>

const attack: Param = {
  name: 'attack',
  label: 'Attack',
  unit: 'ms',
  says: 'How fast it goes with a level that rises: 63 % of the way in this time.',
  min: 0.1,
  max: 2000,
  default: 10,
  taper: 'log',
  step: 5,
  digits: 1,
}
const release: Param = {
  ...attack,
  name: 'release',
  label: 'Release',
  says: 'How fast it goes with a level that falls.',
  min: 1,
  max: 5000,
  default: 150,
  digits: 0,
}
const low: Param = {
  ...attack,
  name: 'low',
  label: 'From a level of',
  unit: 'dB',
  says: 'Below this level it does not move at all.',
  min: -90,
  max: 0,
  default: -40,
  taper: 'linear',
  step: 1,
  digits: 0,
}
const high: Param = {
  ...low,
  name: 'high',
  label: 'To a level of',
  says: 'At this level it has moved all the way.',
  min: -60,
  max: 12,
  default: -6,
}

/** What a mover follows, and over which levels. */
export function FollowPart({ mover, follow }: { mover: Mover; follow: Follow }) {
  const set = (what: Partial<Follow>) =>
    void moves.putMover({ ...mover, follow: { ...follow, ...what } }, `Change what moves ${mover.name}`)
  return (
    <>
      <TapPick
        label="Follows"
        says="The signal whose level it follows, at any point of any row."
        tap={follow.tap}
        none="nothing yet"
        without=""
        onPick={(tap) => set({ tap: tap ?? undefined })}
      />
      <Settle param={attack} value={follow.attack} onSettle={(v) => set({ attack: v })} />
      <Settle param={release} value={follow.release} onSettle={(v) => set({ release: v })} />
      <Settle param={low} value={follow.low} onSettle={(v) => set({ low: v })} />
      <Settle param={high} value={follow.high} onSettle={(v) => set({ high: v })} />
    </>
  )
}
