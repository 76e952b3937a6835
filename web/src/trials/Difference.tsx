import type { Alternative } from '../api/types'

/** A difference in dB, with its sign. */
export const signed = (v: number) => (v > 0 ? '+' : '') + v.toFixed(1).replace('-', '−')

export const W = 700

export const H = 150

export const MOST = 12 // dB either way

export const nominal: Record<number, string> = { 2: '32', 8: '125', 14: '500', 20: '2k', 26: '8k' }

/** Each trial less the chain, in thirds of an octave, at matched loudness. */
export function Difference({
  first,
  others,
  hz,
}: {
  first: Alternative
  others: Alternative[]
  hz: number[]
}) {
  const step = W / hz.length
  const y = (db: number) => H / 2 - (Math.max(-MOST, Math.min(MOST, db)) / MOST) * (H / 2 - 10)
  return (
    <figure className="mt-3">
      <figcaption className="soft mb-1 text-small">
        Each trial against {first.letter} in thirds of an octave, loudness matched; the lines are 6 dB.
      </figcaption>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="w-full"
        role="img"
        aria-label="Difference in thirds of an octave"
        style={{ background: 'var(--shoal-1)', border: '1px solid var(--deep)' }}
      >
        {[-6, 0, 6].map((db) => (
          <line
            key={db}
            x1={0}
            x2={W}
            y1={y(db)}
            y2={y(db)}
            stroke={db === 0 ? 'var(--deep)' : 'var(--shoal-3)'}
          />
        ))}
        {hz.map((f, i) =>
          nominal[i] ? (
            <text
              key={f}
              x={(i + 0.5) * step}
              y={H - 3}
              textAnchor="middle"
              fontSize={12}
              fill="var(--soft)"
              className="figure"
            >
              {nominal[i]}
            </text>
          ) : null,
        )}
        {others.map((o, k) =>
          o.bands.map((b, i) => {
            const a = first.bands[i]!
            if (a < -100 && b < -100) return null
            const d = b + o.match - a
            const w = (step - 3) / others.length
            return (
              <rect
                key={`${o.letter} ${i}`}
                x={i * step + 1.5 + k * w}
                width={Math.max(1, w - 1)}
                y={Math.min(y(d), y(0))}
                height={Math.max(0.5, Math.abs(y(d) - y(0)))}
                fill={['var(--deep)', 'var(--ink)', 'var(--shoal-3)'][k]}
              >
                <title>{`${o.letter}, ${Math.round(hz[i]!)} Hz: ${signed(d)} dB`}</title>
              </rect>
            )
          }),
        )}
      </svg>
      <p className="soft mt-1 flex gap-4 text-small">
        {others.map((o, k) => (
          <span key={o.letter}>
            <span
              className="mr-1 inline-block h-[9px] w-[9px]"
              style={{ background: ['var(--deep)', 'var(--ink)', 'var(--shoal-3)'][k] }}
            />
            {o.letter}
          </span>
        ))}
      </p>
    </figure>
  )
}
