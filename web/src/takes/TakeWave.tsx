import type { Take } from '../api/types'
import { SmallWave } from '../clips/SmallWave'
import { endOf } from './takes'

/** The sound of a take, small: what the way in made of it, else the bare input. */
export function TakeWave({ take: t }: { take: Take }) {
  const last = t.runs.at(-1)!
  const from = t.treated ? 0 : t.runs[0]!.input
  const frames = t.treated ? endOf(t) - t.runs[0]!.song : last.input + last.frames - from
  return <SmallWave hash={t.treated || t.untouched} from={from} frames={frames} width={190} wide />
}
