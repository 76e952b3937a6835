import type { Mover } from '../api/types'
import { Pick, Toggle } from '../controls/Pick'
import { useSession } from '../session/store'
import { DrawShape } from './DrawShape'
import { FollowPart } from './FollowPart'
import { Settle } from './Settle'
import * as moves from './actions'

/** One mover: its shape, how fast, how far, and chance thrown again. */
export function MoverPart({ mover, owner, name }: { mover: Mover; owner: string; name: string }) {
  const strip = useSession((s) => s.strip)!
  const set = (what: Partial<Mover>, label: string) =>
    void moves.setMover(mover, what, `${label} ${mover.name}`)
  const chance = mover.shape === 'wander' || mover.shape === 'random steps'
  const known = mover.quarters === 0 || strip.cycles.some((c) => c.quarters === mover.quarters)
  const follow = mover.shape === 'level' ? mover.follow : undefined
  const others = mover.targets.length - 1
  return (
    <section
      className="rounded-[3px] border p-2.5"
      style={{ borderColor: 'var(--hair)' }}
      aria-label={`Mover, ${mover.shape}`}
    >
      <div className="mb-1 flex items-center gap-2">
        <span className="text-label font-semibold">Mover</span>
        {others > 0 && <span className="soft text-small">moves {others} more</span>}
        <span className="ml-auto flex gap-1">
          {chance && (
            <button
              className="btn btn-xs btn-outline font-normal"
              onClick={() => set({ seed: mover.seed + 1 }, 'Throw again:')}
            >
              Throw again
            </button>
          )}
          <button className="btn btn-xs btn-ghost font-normal" onClick={() => void moves.removeMover(mover)}>
            Remove
          </button>
        </span>
      </div>
      <div className="grid grid-cols-2 gap-x-5 gap-y-1">
        <Pick
          label="Shape"
          says="How it moves; wander and random steps fall by chance, the same way each time; level follows how loud something is."
          value={mover.shape}
          choices={strip.shapes.map((x) => ({ value: x, text: x }))}
          onPick={(shape) => set({ shape }, 'Change the shape of')}
        />
        {mover.shape === 'drawn' && mover.drawn && (
          <DrawShape drawn={mover.drawn} onDraw={(drawn) => set({ drawn }, 'Draw')} />
        )}
        {follow && <FollowPart mover={mover} follow={follow} />}
        {!follow && (
          <Pick
            label="One movement takes"
            says="A note length, which follows the tempo, or as fast as is set in hertz."
            value={mover.quarters}
            choices={[
              { value: 0, text: 'in hertz' },
              ...strip.cycles.map((c) => ({ value: c.quarters, text: c.name })),
              ...(known ? [] : [{ value: mover.quarters, text: `${mover.quarters} quarters` }]),
            ]}
            onPick={(quarters) => set({ quarters }, 'Change the speed of')}
          />
        )}
        <Settle
          param={strip.moves.depth}
          value={moves.depthOf(mover, owner, name) * 100}
          onSettle={(v) => void moves.setDepth(mover, owner, name, v / 100)}
        />
        {!follow && mover.quarters === 0 && (
          <Settle
            param={strip.moves.rate}
            value={mover.rate}
            onSettle={(v) => set({ rate: v }, 'Change the speed of')}
          />
        )}
        {!follow && (
          <Settle
            param={strip.moves.phase}
            value={mover.phase * 100}
            onSettle={(v) => set({ phase: v / 100 }, 'Change the phase of')}
          />
        )}
        <Toggle
          label="One way only"
          says="It moves from where the parameter stands to one side, not to both."
          on={mover.oneWay}
          onSet={(oneWay) => set({ oneWay }, 'Change the way of')}
        />
      </div>
    </section>
  )
}
