import type { Clip, Param } from '../api/types'
import { useSession } from '../session/store'
import * as actions from './actions'
import { ClipScale } from './ClipScale'

const seconds = (name: string, label: string, says: string, min: number, max: number): Param => ({
  name,
  label,
  says,
  unit: 's',
  min,
  max,
  default: min,
  taper: 'linear',
  step: 0.1,
  digits: 2,
})

/** A clip's edges and its content as scales: what a hand does on the board, without one. */
export function Edges({ clip }: { clip: Clip }) {
  const rate = useSession((s) => s.project!.sampleRate)
  const whole = useSession((s) => s.project!.audio.find((a) => a.hash === clip.audio)?.frames ?? clip.frames)
  const from = clip.offset / rate
  const to = (clip.offset + clip.frames) / rate
  const trim = (edge: 'begin' | 'end', by: number) =>
    void actions.trim(clip, edge, by * rate, { free: true, both: false, near: 0 })
  return (
    <>
      <ClipScale
        param={seconds('begin', 'From', 'Where in its source it begins; the sound stays where it is.', 0, to)}
        value={from}
        of={clip.name}
        onSet={(v) => trim('begin', v - from)}
      />
      <ClipScale
        param={seconds('end', 'To', 'Where in its source it ends.', from, whole / rate)}
        value={to}
        of={clip.name}
        onSet={(v) => trim('end', v - to)}
      />
      <ClipScale
        param={seconds(
          'content',
          'Slide',
          'Slides its content inside the edges.',
          0,
          (whole - clip.frames) / rate + 0.001,
        )}
        value={from}
        of={clip.name}
        onSet={(v) => void actions.slip([clip], (from - v) * rate)}
      />
    </>
  )
}
