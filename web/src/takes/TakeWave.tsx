import type { Take } from '../api/types'
import { useOverview } from '../clips/wave'
import { useSession } from '../session/store'

const WIDTH = 190
const HEIGHT = 26

/** Frames that one value of an overview stands for: audiofile.OverviewFrames. */
const FRAMES = 512

/** The sound of a take, small. */
export function TakeWave({ take: t }: { take: Take }) {
  const hash = t.treated || t.untouched
  const { data } = useOverview(hash)
  const name = useSession((s) => s.project!.audio.find((a) => a.hash === hash)?.name ?? '')
  const last = t.runs.at(-1)!
  const from = t.treated ? 0 : t.runs[0]!.input
  const frames = t.treated ? last.song + last.frames - t.runs[0]!.song : last.input + last.frames - from
  return (
    <svg
      className="block w-full"
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      preserveAspectRatio="none"
      role="img"
      aria-label={name}
    >
      {data && <path d={outline(data, from / FRAMES, frames / FRAMES)} fill="var(--deep)" />}
    </svg>
  )
}

/** Peaks over a stretch of an overview: pairs of a peak and a mean, one byte each. */
function outline(data: Uint8Array, from: number, count: number): string {
  const top: string[] = []
  const bottom: string[] = []
  for (let x = 0; x < WIDTH; x++) {
    const a = Math.floor(from + (x * count) / WIDTH)
    const b = Math.max(a + 1, Math.floor(from + ((x + 1) * count) / WIDTH))
    let v = 0
    for (let i = a; i < b && 2 * i < data.length; i++) v = Math.max(v, data[2 * i]!)
    const y = (v / 255) * (HEIGHT / 2 - 1)
    top.push(`${x} ${(HEIGHT / 2 - y).toFixed(1)}`)
    bottom.unshift(`${x} ${(HEIGHT / 2 + y + 0.5).toFixed(1)}`)
  }
  return `M${top.join('L')}L${bottom.join('L')}Z`
}
