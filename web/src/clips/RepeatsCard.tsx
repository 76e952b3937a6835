import { useState } from 'react'
import type { EffectInfo, Param, Treatment } from '../api/types'
import { Card } from '../controls/Card'
import { Pick } from '../controls/Pick'
import { Scale } from '../controls/Scale'
import { effectOf, stageName, stages } from '../document/chain'
import { change } from '../session/changes'
import { useSession } from '../session/store'
import { setView } from '../session/view'

const scale = (p: Partial<Param> & { name: string; label: string; min: number; max: number }): Param => ({
  unit: '',
  says: '',
  default: 0,
  taper: 'linear',
  step: 1,
  digits: 0,
  ...p,
})

const times = scale({
  name: 'times',
  label: 'How often',
  min: 1,
  max: 32,
  default: 3,
  says: 'How many repeats there are.',
})
const gain = scale({
  name: 'gain',
  label: 'Each by',
  unit: 'dB',
  min: -24,
  max: 12,
  default: -4,
  step: 0.5,
  digits: 1,
  says: 'By how much each repeat is louder or softer than the one before.',
})
const pitch = scale({
  name: 'pitch',
  label: 'Each higher by',
  unit: 'st',
  min: -12,
  max: 12,
  says: 'By how many semitones each repeat is higher than the one before.',
})
const part = scale({
  name: 'part',
  label: 'Each by, of its travel',
  unit: '%',
  min: -50,
  max: 50,
  says: 'By how much of its travel the parameter differs from repeat to repeat.',
})

/** Repeats of a clip: how often, how far apart, and by what each differs from the one before. */
export function RepeatsCard({ id }: { id: string }) {
  const project = useSession((s) => s.project)!
  const effects = useSession((s) => s.effects)
  const cycles = useSession((s) => s.strip?.cycles) ?? []
  const clip = project.channels.flatMap((c) => c.clips).find((x) => x.id === id)
  const treatment = project.treatments?.find((t) => t.id === clip?.treatment)
  const [count, setCount] = useState(times.default)
  const [note, setNote] = useState('1/4')
  const [by, setBy] = useState(gain.default)
  const [higher, setHigher] = useState(0)
  const [what, setWhat] = useState('')
  const [step, setStep] = useState(0)
  if (!clip)
    return (
      <Card title="Repeat" width={552}>
        The clip is no longer there.
      </Card>
    )
  const repeat = async () => {
    const [owner, name] = what.split(' ')
    const quarters = cycles.find((c) => c.name === note)?.quarters ?? 1
    const param = owner && name ? { owner, name, by: step / 100 } : undefined
    const done = await change(`Repeat ${clip.name}`, {
      type: 'clip.repeat',
      do: { id, times: count, ticks: Math.round(quarters * 960), gain: by, param, pitch: higher },
    })
    if (done) setView({ dialog: null })
  }
  return (
    <Card title={`Repeat ${clip.name}`} width={552} foot="The repeats are clips like all others afterwards.">
      <div className="grid grid-cols-2 gap-x-5 gap-y-1">
        <Scale param={times} value={count} onMove={(v) => setCount(Math.round(v))} />
        <Pick
          label="Every"
          says="How much later each begins than the one before."
          value={note}
          choices={cycles.map((c) => ({ value: c.name, text: c.name }))}
          onPick={setNote}
        />
        <Scale param={gain} value={by} onMove={setBy} />
        <Scale param={pitch} value={higher} onMove={setHigher} />
        {treatment && (
          <Pick
            label="And of its treatment"
            says="A parameter of its treatment that differs too: each repeat then has a treatment of its own."
            value={what}
            choices={[{ value: '', text: 'nothing' }, ...paramsOf(treatment, effects)]}
            onPick={setWhat}
          />
        )}
        {what && <Scale param={part} value={step} onMove={setStep} />}
      </div>
      {!treatment && (
        <p className="soft mt-1 text-small">
          With a treatment, a parameter of it can differ from repeat to repeat too.
        </p>
      )}
      <button className="btn btn-xs btn-primary mt-2 self-start" onClick={() => void repeat()}>
        Repeat {count} {count === 1 ? 'time' : 'times'}
      </button>
    </Card>
  )
}

/** The parameters of a treatment's stages, by their addresses. */
const paramsOf = (t: Treatment, effects: EffectInfo[]) =>
  [...stages(t.chain.nodes)].flatMap((s) => [
    { value: `${s.id} mix`, text: `${stageName(s, effects)}: mix` },
    ...(effectOf(s, effects)?.params ?? [])
      .filter((p) => p.taper !== 'switch')
      .map((p) => ({
        value: `${s.id} ${p.name}`,
        text: `${stageName(s, effects)}: ${p.label.toLowerCase()}`,
      })),
  ])
