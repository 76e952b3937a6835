import type { Fork, ForkFigures } from '../api/types'
import { useSession } from '../session/store'

/** What the picture shows, in a line; where paths take each other away, that. */
export function ForkSays({ fork, figures, hint }: { fork: Fork; figures: ForkFigures | null; hint: string }) {
  const rate = useSession((s) => s.project!.sampleRate)
  if (!figures) return <p className="soft mt-1 text-small">Sending a test signal through a copy of it…</p>
  const late = figures.latency
    ? ` · ${((figures.latency / rate) * 1000).toFixed(1)} ms late, made up for`
    : ''
  const gain = `${figures.gain < 0 ? '−' : '+'}${Math.abs(figures.gain).toFixed(1)} dB`
  return (
    <>
      {figures.cancel > 3 ? (
        <p className="mt-1 text-small leading-[14px]" style={{ color: 'var(--caution)' }}>
          Paths cancel: {figures.cancel.toFixed(0)} dB are lost at {hertz(figures.at)}.
        </p>
      ) : (
        <p className="soft mt-1 text-small leading-[14px]">
          Thick: the whole, {gain}
          {late}
        </p>
      )}
      <p className="soft text-small leading-[14px]">
        {hint ||
          (figures.measured
            ? 'Measured with noise at −18 dBFS: something on a path is not linear.'
            : fork.kind === 'bands'
              ? 'Drag a crossover; Alt hears the band below it, Ctrl the one above.'
              : 'Thin: each path. Its part is of the power of all.')}
      </p>
    </>
  )
}

const hertz = (v: number) => (v < 1000 ? `${Math.round(v)} Hz` : `${(v / 1000).toFixed(1)} kHz`)
