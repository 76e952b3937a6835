import type { Mover } from '../api/types'
import { TapPick } from '../routing/TapPick'
import { useSession } from '../session/store'
import { Settle } from './Settle'
import * as moves from './actions'

type Follow = NonNullable<Mover['follow']>
const leave = { node: null }

/** What a mover follows, and over which levels. */
export function FollowPart({ mover, follow }: { mover: Mover; follow: Follow }) {
  const of = useSession((s) => s.strip)!.moves
  const set = (what: Partial<Omit<Follow, 'tap'>> | { tap: object | null }) =>
    void moves.setMover(mover, { follow: what as Partial<Follow> }, `Change what moves ${mover.name}`)
  return (
    <>
      <TapPick
        label="Follows"
        says="The signal whose level it follows, at any point of any row."
        tap={follow.tap}
        none="nothing yet"
        without=""
        // what it was taken at before goes
        onPick={(tap) => set({ tap: tap && { ...leave, ...tap } })}
      />
      <Settle param={of.attack} value={follow.attack} onSettle={(v) => set({ attack: v })} />
      <Settle param={of.release} value={follow.release} onSettle={(v) => set({ release: v })} />
      <Settle param={of.low} value={follow.low} onSettle={(v) => set({ low: v })} />
      <Settle param={of.high} value={follow.high} onSettle={(v) => set({ high: v })} />
    </>
  )
}
