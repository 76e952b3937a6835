import { type ReactNode, useEffect } from 'react'
import { useSession } from '../session/store'
import { togglePlay } from '../session/transport'
import { setView, useView, useViewOf } from '../session/view'

/** What a newcomer is led through, once in a browser: press, listen, change. Each goes when it was done. */
const steps = ['Press', 'Listen', 'Change']

const learn = (learnt: number) => setView((v) => ({ learnt: Math.max(v.learnt, learnt) }))

/** The first minute's hints, over the bench; there is one only where something can be heard. */
export function FirstMinute() {
  const { learnt, playing, without } = useViewOf('learnt', 'playing', 'without')
  const sound = useSession((s) => s.project!.channels.some((c) => c.clips.length > 0))
  const mine = useSession((s) => !!s.me && s.lastChange?.author.id === s.me.id && s.lastChange.kind === 'do')
  useEffect(() => {
    if (playing) learn(1)
  }, [playing])
  useEffect(() => {
    if (without) learn(2)
  }, [without])
  useEffect(() => {
    if (mine) learn(3)
  }, [mine])
  if (learnt > steps.length || !sound) return null
  return (
    <section
      aria-label="The first minute"
      className="flex min-h-[52px] shrink-0 items-center gap-4 px-4 py-2"
      style={{ background: 'var(--card)', borderTop: '2px solid var(--live)' }}
    >
      <ol className="flex gap-3" aria-label="Steps">
        {steps.map((s, i) => (
          <li
            key={s}
            aria-current={i === learnt ? 'step' : undefined}
            className={i === learnt ? 'font-bold' : i < learnt ? 'struck soft' : 'soft'}
          >
            {i + 1} {s}
          </li>
        ))}
      </ol>
      <Hint learnt={learnt} />
      <button className="btn btn-xs btn-ghost ml-auto" onClick={() => setView({ learnt: steps.length + 1 })}>
        {learnt < steps.length ? 'I know my way' : 'Put this away'}
      </button>
    </section>
  )
}

function Hint({ learnt }: { learnt: number }) {
  const name = useSession((s) => s.project!.name)
  const pointed = useView((v) => v.pointed)
  if (learnt === 0)
    return (
      <>
        <button className="btn btn-primary px-6 text-head" onClick={() => void togglePlay()}>
          ▶ Hear {name}
        </button>
        <Says>
          or <Key>Space</Key>: everything you hear is worked out here, from the recordings on.
        </Says>
      </>
    )
  if (learnt === 1)
    return (
      <Says>
        {pointed ? (
          <>
            Now hold <Key>5</Key>: you hear the music without it, for as long as you hold.
          </>
        ) : (
          <>Point at a stage, one of the boxes in the water: the line at the bottom says what it does.</>
        )}
        <button className="btn btn-xs btn-outline ml-3" onClick={() => learn(2)}>
          Next
        </button>
      </Says>
    )
  if (learnt === 2)
    return (
      <Says>
        Click a stage and drag one of its scales, below on the right: you hear it at once. <b>Undo</b> takes
        it back.
      </Says>
    )
  return (
    <Says>
      That is how all of it goes. <Key>;</Key> finds whatever can be done, <Key>?</Key> shows the keys, a
      press of the other button what can be done to a thing.
    </Says>
  )
}

const Says = ({ children }: { children: ReactNode }) => <p className="text-press">{children}</p>
const Key = ({ children }: { children: ReactNode }) => <kbd className="kbd kbd-sm">{children}</kbd>
