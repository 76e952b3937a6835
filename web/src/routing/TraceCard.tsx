import { Card } from '../controls/Card'
import { useSession } from '../session/store'
import { setView } from '../session/view'
import { useTrace } from './traced'

const db = (v: number) => (v <= -120 ? 'off' : `${v > 0 ? '+' : ''}${v.toFixed(1)}`.replace('-', '−'))

/** Every way from one row to another, with each gain on it and what they come to. */
export function TraceCard({ from, to }: { from: string; to: string }) {
  const project = useSession((s) => s.project)!
  const trace = useTrace()
  const pick = (label: string, value: string, set: (id: string) => void) => (
    <select
      className="select select-sm w-[190px]"
      aria-label={label}
      value={value}
      onChange={(e) => set(e.target.value)}
    >
      {project.channels.map((c) => (
        <option key={c.id} value={c.id}>
          {c.name}
        </option>
      ))}
    </select>
  )
  return (
    <Card title="Trace a signal" width={660}>
      <div className="mb-3 flex items-center gap-2 text-small">
        {pick('From', from, (id) => setView({ dialog: { kind: 'trace', from: id, to } }))}
        <span className="soft">to</span>
        {pick('To', to, (id) => setView({ dialog: { kind: 'trace', from, to: id } }))}
      </div>
      {trace && (
        <>
          <p className="mb-2 text-label" data-testid="trace">
            {trace.says}
            {trace.ways.length > 0 && trace.sum > -120 && (
              <>
                {' '}
                Gains that are set: <b className="figure whitespace-nowrap">{db(trace.sum)} dB</b>.
              </>
            )}
          </p>
          <div className="flex flex-wrap items-start gap-3">
            {trace.ways.map((w, i) => (
              <table key={i} className="table table-xs w-auto flex-1" style={{ minWidth: 240 }}>
                <tbody>
                  {w.steps.map((s, k) => (
                    <tr key={k} className={s.gain <= -120 ? 'font-bold' : ''}>
                      <td className={s.changes ? 'soft' : ''}>{s.says}</td>
                      <td className="figure text-right whitespace-nowrap">
                        {s.changes ? 'acts' : `${db(s.gain)} dB`}
                      </td>
                    </tr>
                  ))}
                  <tr style={{ borderTop: '1px solid var(--ink)' }}>
                    <td>{trace.ways.length > 1 ? `Way ${i + 1} in all` : 'In all'}</td>
                    <td className="figure text-right font-bold whitespace-nowrap">{db(w.total)} dB</td>
                  </tr>
                </tbody>
              </table>
            ))}
          </div>
        </>
      )}
    </Card>
  )
}
