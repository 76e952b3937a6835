import { useEffect, useState } from 'react'
import type { Comparison } from '../api/types'
import { Card } from '../controls/Card'
import { percent, share } from '../controls/cost'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { Difference, signed } from './Difference'
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
    <Card title={`Trials of ${row?.name ?? ''} in figures`} width={640}>
      {busy && <p className="soft">Rendering each of them over the loop or the section…</p>}
      {result && first && (
        <>
          <p className="soft mb-2 text-small">
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
