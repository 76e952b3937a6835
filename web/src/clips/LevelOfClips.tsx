import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Clip, ClipLevels, NormaliseSpec } from '../api/types'
import { useSession } from '../session/store'
import * as levels from './levels'
import { usePending } from './worked'

const measures: { to: NormaliseSpec['to']; text: string; level: number; unit: string }[] = [
  { to: 'integrated', text: 'loudness', level: -20, unit: 'LUFS' },
  { to: 'momentary', text: 'loudest moment', level: -16, unit: 'LUFS' },
  { to: 'rms', text: 'mean level', level: -20, unit: 'dBFS' },
  { to: 'peak', text: 'peak', level: -3, unit: 'dBFS' },
  { to: 'truePeak', text: 'true peak', level: -1, unit: 'dBTP' },
]

/** The levels of clips by themselves, and what brings them to one. */
export function LevelOfClips({ clips }: { clips: Clip[] }) {
  const [at, setAt] = useState(0)
  const [together, setTogether] = useState(false)
  const measure = measures[at]!
  const [level, setLevel] = useState(String(measure.level))
  const pending = usePending(clips)
  const treatments = useSession((s) => s.project?.treatments)?.filter((t) =>
    clips.some((c) => c.treatment === t.id),
  )
  const { data } = useQuery({
    queryKey: ['clip levels', clips, treatments],
    queryFn: () => levels.measure(clips),
    enabled: !pending, // it would have to wait for that
    placeholderData: (before) => before,
  })
  const over = (data ?? []).filter((l) => l.over > 0)
  const to = Number(level.replace('−', '-'))
  return (
    <div className="col-span-2 flex flex-col gap-1 text-label">
      <span className="soft text-small leading-4" title={data?.map(inWords).join('; ')}>
        {pending
          ? 'Its level is measured once it is worked out.'
          : !data
            ? 'Measuring…'
            : data.length === 1
              ? inWords(data[0]!)
              : among(data, measure.to)}
      </span>
      <span className="flex items-center gap-1.5">
        <select
          className="select select-xs min-w-0 flex-1"
          aria-label="Measure"
          value={at}
          onChange={(e) => {
            setAt(e.target.selectedIndex)
            setLevel(String(measures[e.target.selectedIndex]!.level))
          }}
        >
          {measures.map((m, i) => (
            <option key={m.to} value={i}>
              {m.text}
            </option>
          ))}
        </select>
        <span>to</span>
        <input
          className="input input-xs w-14 text-right"
          aria-label="Level"
          value={level}
          onChange={(e) => setLevel(e.target.value)}
        />
        <span className="soft text-small">{measure.unit}</span>
        {clips.length > 1 && (
          <label
            className="flex h-6 items-center gap-1 text-small"
            title="All by one amount, so that the loudest comes there"
          >
            <input
              type="checkbox"
              className="toggle toggle-sm"
              aria-label="All by one amount"
              checked={together}
              onChange={(e) => setTogether(e.target.checked)}
            />
            as one
          </label>
        )}
        <button
          className="btn btn-xs btn-outline font-normal"
          disabled={!Number.isFinite(to)}
          onClick={() => void levels.normalise(clips, { to: measure.to, level: to, together })}
        >
          Normalise
        </button>
      </span>
      {over.length > 0 && (
        <span className="flex items-center justify-between gap-1.5 text-small">
          <span style={{ color: 'var(--loss)' }}>
            {`${over.reduce((n, l) => n + l.over, 0)} samples over full scale: harmless in here, clipped in a 24 bit file`}
          </span>
          <button
            className="btn btn-xs btn-outline font-normal"
            onClick={() =>
              void levels.normalise(
                clips.filter((c) => over.some((l) => l.id === c.id)),
                { to: 'peak', level: -0.1, together: false },
              )
            }
          >
            Bring under
          </button>
        </span>
      )}
    </div>
  )
}

const figure = (v: number) => (v < -119 ? '−∞' : v.toFixed(1).replace('-', '−'))

const inWords = (l: ClipLevels) =>
  `Peak ${figure(l.peak)}, true peak ${figure(l.truePeak)}, mean ${figure(l.rms)} dB, loudness ${figure(l.integrated)} LUFS`

/** How far apart several are. */
function among(list: ClipLevels[], to: NormaliseSpec['to']): string {
  const all = list.map((l) => l[to])
  return `From ${figure(Math.min(...all))} to ${figure(Math.max(...all))}: ${measures.find((m) => m.to === to)!.text}`
}
