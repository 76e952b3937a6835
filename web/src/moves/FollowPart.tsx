import type { Mover } from '../api/types'
import * as moves from '../live/moves'
import { useSession } from '../live/session'
import { TapPick } from '../routing/TapPick'
import { Settle } from './Settle'

type Follow = NonNullable<Mover['follow']>

/** What a mover follows, and over which levels. */
export function FollowPart({ mover, follow }: { mover: Mover; follow: Follow }) {
  const of = useSession((s) => s.strip)!.moves
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
      <Settle param={of.attack} value={follow.attack} onSettle={(v) => set({ attack: v })} />
      <Settle param={of.release} value={follow.release} onSettle={(v) => set({ release: v })} />
      <Settle param={of.low} value={follow.low} onSettle={(v) => set({ low: v })} />
      <Settle param={of.high} value={follow.high} onSettle={(v) => set({ high: v })} />
    </>
  )
}
