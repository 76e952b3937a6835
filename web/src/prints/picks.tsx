import type { PrintSpec, Timeline } from '../api/types'
import { useSession } from '../session/store'
import { type Range, useView } from '../session/view'

/* What prints and stems ask alike: which part of the song, and in which format. */

export type Format = NonNullable<PrintSpec['format']>

const formats: [Format, string][] = [
  ['wav24', 'WAV, 24 bit with dither'],
  ['wav16', 'WAV, 16 bit with dither'],
  ['wav16shaped', 'WAV, 16 bit, dither shaped'],
  ['wav32f', 'WAV, 32 bit float'],
  ['flac24', 'FLAC, 24 bit'],
  ['flac16', 'FLAC, 16 bit'],
  ['flac16shaped', 'FLAC, 16 bit, dither shaped'],
]

/** The stretch of the song that a choice of RangePick means, in frames; what is not there any more means all of it. */
export function spanOf(timeline: Timeline | null, loop: Range | null, range: string) {
  const section = timeline?.sections.find((s) => s.id === range)
  const span = range === 'range' && loop ? loop : (section ?? { from: 0, to: timeline?.end ?? 0 })
  return { from: Math.round(span.from), to: Math.round(span.to) }
}

export function useSpan(range: string) {
  const timeline = useSession((s) => s.timeline)
  return spanOf(
    timeline,
    useView((v) => v.loop),
    range,
  )
}

export function RangePick({ range, onPick }: { range: string; onPick: (range: string) => void }) {
  const sections = useSession((s) => s.timeline?.sections) ?? []
  const loop = useView((v) => v.loop)
  return (
    <label className="flex min-h-6 items-center justify-between gap-3">
      What
      <select
        className="select select-sm w-[220px]"
        aria-label="What"
        value={range}
        onChange={(e) => onPick(e.target.value)}
      >
        <option value="song">The whole song</option>
        {sections.map((s) => (
          <option key={s.id} value={s.id}>
            Section {s.name}
          </option>
        ))}
        {loop && <option value="range">The range: {loop.name}</option>}
      </select>
    </label>
  )
}

export function FormatPick({ format, onPick }: { format: Format; onPick: (format: Format) => void }) {
  return (
    <label className="flex min-h-6 items-center justify-between gap-3">
      Format
      <select
        className="select select-sm w-[220px]"
        aria-label="Format"
        value={format}
        onChange={(e) => onPick(e.target.value as Format)}
      >
        {formats.map(([v, name]) => (
          <option key={v} value={v}>
            {name}
          </option>
        ))}
      </select>
    </label>
  )
}

export function Toggle(p: { text: string; on: boolean; onTurn: (on: boolean) => void }) {
  return (
    <label className="flex min-h-6 items-center justify-between gap-3">
      {p.text}
      <input
        type="checkbox"
        className="toggle toggle-sm"
        checked={p.on}
        onChange={(e) => p.onTurn(e.target.checked)}
      />
    </label>
  )
}
