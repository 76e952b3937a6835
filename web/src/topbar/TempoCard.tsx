import { Card } from '../controls/Card'
import * as sections from '../sections/actions'
import { useSession } from '../session/store'

/** The tempo along the song: from where, how fast, and whether it goes to the next one in a ramp. */
export function TempoCard() {
  const tempo = useSession((s) => s.timeline?.tempo ?? [])
  return (
    <Card title="Tempo" width={460}>
      <table className="w-full text-label">
        <thead>
          <tr className="soft text-left text-small">
            <th className="font-normal">From bar</th>
            <th className="font-normal">Quarter notes a minute</th>
            <th className="font-normal">Ramp to the next</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {tempo.map((t, i) => (
            <tr key={t.tick}>
              <td className="figure py-1">{t.where}</td>
              <td>
                <input
                  key={t.bpm}
                  className="figure input input-xs w-24"
                  aria-label={`Tempo from bar ${t.where}`}
                  defaultValue={t.bpm}
                  onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
                  onBlur={(e) => {
                    const bpm = Number(e.target.value.replace(',', '.'))
                    if (bpm !== t.bpm) void sections.putTempo({ ...t, bpm })
                  }}
                />
              </td>
              <td>
                <input
                  type="checkbox"
                  className="toggle toggle-xs"
                  aria-label={`Ramp from bar ${t.where}`}
                  disabled={i === tempo.length - 1}
                  checked={t.ramp ?? false}
                  onChange={(e) => void sections.putTempo({ ...t, ramp: e.target.checked })}
                />
              </td>
              <td className="text-right">
                {i > 0 && (
                  <button
                    className="btn btn-xs btn-ghost"
                    aria-label={`Remove the tempo from bar ${t.where}`}
                    onClick={() => void sections.removeTempo(t.tick)}
                  >
                    Remove
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button
        className="btn btn-sm btn-outline mt-3"
        onClick={() => void sections.putTempoHere(tempo.at(-1)?.bpm ?? 120)}
      >
        Another tempo from the playhead on
      </button>
      <p className="soft mt-2 text-small">
        A ramp goes evenly from beat to beat. Everything in note lengths follows; clips stay where their bars
        are, and are not stretched.
      </p>
    </Card>
  )
}
