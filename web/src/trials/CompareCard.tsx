import { useEffect, useState } from 'react'
import type { Alternative, Comparison } from '../api/types'
import { Card } from '../controls/Card'
import { percent, share } from '../controls/cost'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { hear, measure } from './actions'

/** A row's alternatives in figures, measured over the loop or the section. */
export function CompareCard({ channel }: { channel: string }) {
  const row = useSession((s) => s.project?.channels.find((c) => c.id === channel))
  const rate = useSession((s) => s.project!.sampleRate)
  const heard = useView((v) => v.trials[channel] ?? '')
  const [result, setResult] = useState<(Comparison & { over: string }) | null>(null)
  const [busy, setBusy] = useState(true)
  useEffect(() => {
    let current = true
    void measure(channel).then((r) => {
      if (!current) return
      setResult(r)
      setBusy(false)
    })
    return () => {
      current = false
    }
  }, [channel, row])
  const first = result?.alternatives[0]
  return (
    <Card title={`Trials of ${row?.name ?? ''} in figures`} width={760}>
      {busy && <p className="soft">Rendering each of them over the loop or the section…</p>}
      {result && first && (
        <>
          <p className="soft mb-2 text-[12px]">
            Measured behind the chain over {result.over}. Press a letter to hear it.
          </p>
          <table className="table table-sm figure text-right">
            <thead>
              <tr>
                <th></th>
                <th title="Integrated loudness">LUFS</th>
                <th title="True peak">dBTP</th>
                <th title="Peak over mean level">Crest, dB</th>
                <th title="Loudness range">Range, LU</th>
                <th>Latency</th>
                <th title="Of the engine's time, on the server">Cost</th>
                <th title="What brings it to the chain's loudness">Match, dB</th>
              </tr>
            </thead>
            <tbody>
              {result.alternatives.map((a) => (
                <tr key={a.letter} style={a.trial === heard ? { background: 'var(--shoal-1)' } : undefined}>
                  <td className="text-left">
                    <button
                      className={`btn btn-xs ${a.trial === heard ? 'btn-primary' : 'btn-outline'}`}
                      onClick={() => hear(channel, a.trial || channel)}
                    >
                      {a.letter}
                    </button>{' '}
                    <span className="soft">{a.trial ? 'trial' : 'the chain'}</span>
                  </td>
                  <td>{fixed(a.loudness)}</td>
                  <td style={a.peak > 0 ? { color: 'var(--loss)' } : undefined}>{fixed(a.peak)}</td>
                  <td>{fixed(a.crest)}</td>
                  <td>{fixed(a.range)}</td>
                  <td>{a.latency ? `${a.latency} fr` : '–'}</td>
                  <td>{percent(share(a.nanos, rate))}</td>
                  <td>{signed(a.match)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Difference first={first} others={result.alternatives.slice(1)} hz={result.hz} />
        </>
      )}
    </Card>
  )
}

const fixed = (v: number) => (v <= -110 ? '–' : v.toFixed(1).replace('-', '−'))

const signed = (v: number) => (v > 0 ? '+' : '') + v.toFixed(1).replace('-', '−')

const W = 700

const H = 150

const MOST = 12 // dB either way

const nominal: Record<number, string> = { 2: '32', 8: '125', 14: '500', 20: '2k', 26: '8k' }

/** Each trial less the chain, in thirds of an octave, at matched loudness. */
function Difference({ first, others, hz }: { first: Alternative; others: Alternative[]; hz: number[] }) {
  const step = W / hz.length
  const y = (db: number) => H / 2 - (Math.max(-MOST, Math.min(MOST, db)) / MOST) * (H / 2 - 10)
  return (
    <figure className="mt-3">
      <figcaption className="soft mb-1 text-[12px]">
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
              fontSize={9}
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
      <p className="soft mt-1 flex gap-4 text-[12px]">
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
