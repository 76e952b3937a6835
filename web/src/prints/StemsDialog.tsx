import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api } from '../api/client'
import type { PrintSpec, Project } from '../api/types'
import { Card } from '../controls/Card'
import { refused, useSession } from '../session/store'
import { setView, view } from '../session/view'
import { type Format, FormatPick, RangePick, Toggle, useSpan } from './picks'
import { StemLevel } from './StemLevel'
import { StemRows } from './StemRows'

type Kind = 'heard' | 'share' | 'chain' | 'both'
export type MixLevel = { lufs: number; ceiling: number }

const kinds: [Kind, string][] = [
  ['heard', 'as heard: fader, pan, mute'],
  ['share', 'with their share of returns'],
  ['chain', 'after their chains'],
  ['both', 'as heard and after their chains'],
]

/** Stems and mixes: which rows become files, of what, and how they are called; what will come of it is seen before. */
export function StemsDialog() {
  const project = useSession((s) => s.project)!
  const revision = useSession((s) => s.revision)
  const [rows, setRows] = useState(() => begin(project))
  const [kind, setKind] = useState<Kind>('heard')
  const [range, setRange] = useState('song')
  const [tail, setTail] = useState(true)
  const [trim, setTrim] = useState(false)
  const [format, setFormat] = useState<Format>('wav24')
  const [pattern, setPattern] = useState('{project} {n} {row}')
  const [level, setLevel] = useState<MixLevel | null>(null)
  const span = useSpan(range)
  const each = kind === 'both' ? (['heard', 'chain'] as const) : [kind]
  const chosen = project.channels.filter((c) => rows.includes(c.id))
  const spec: PrintSpec = {
    channel: project.channels.find((c) => c.kind === 'main')!.id,
    ...span,
    tail,
    target: 'stems',
    mute: false,
    format,
    stems: {
      rows: chosen.flatMap((c) => each.map((kind) => ({ channel: c.id, kind }))),
      pattern,
      trim,
      level: level ?? undefined,
    },
  }
  const params = { path: { id: project.id } }
  const { data: plan } = useQuery({
    queryKey: ['stems', JSON.stringify(spec), revision],
    queryFn: () => answer(api.POST('/api/projects/{id}/stems', { params, body: spec })),
    enabled: span.to > 0, // how long the song is comes a moment after it
    placeholderData: keepPreviousData,
    retry: false,
  })
  const start = async () => {
    try {
      await api.POST('/api/projects/{id}/prints', { params, body: spec })
      setView({ dialog: null })
    } catch (e) {
      refused(e)
    }
  }
  const count = plan?.files.length ?? 0
  return (
    <Card title="Stems and mixes" width={820}>
      <form
        className="grid min-h-0 grid-cols-[330px_1fr] gap-x-5 text-label"
        onSubmit={(e) => {
          e.preventDefault()
          if (!plan?.wrong) void start()
        }}
      >
        <div className="flex flex-col gap-1">
          <RangePick range={range} onPick={setRange} />
          <label className="flex min-h-6 items-center justify-between gap-3">
            Rows
            <select
              className="select select-sm w-[220px]"
              aria-label="How rows are taken"
              value={kind}
              onChange={(e) => setKind(e.target.value as Kind)}
            >
              {kinds.map(([v, text]) => (
                <option key={v} value={v}>
                  {text}
                </option>
              ))}
            </select>
          </label>
          <FormatPick format={format} onPick={setFormat} />
          <label className="flex min-h-6 items-center justify-between gap-3">
            Names
            <input
              className="input input-sm figure w-[220px]"
              aria-label="Pattern of the names"
              title="{project}, {n}: their number, {row}, {kind}"
              value={pattern}
              onChange={(e) => setPattern(e.target.value)}
            />
          </label>
          <Toggle text="With tails, until they have died away" on={tail} onTurn={setTail} />
          <Toggle text="Cut each at its first sound" on={trim} onTurn={setTrim} />
          <StemLevel level={level} onLevel={setLevel} />
        </div>
        <div className="flex min-h-0 flex-col gap-1.5">
          <StemRows project={project} rows={rows} plan={plan} onRows={setRows} />
          <div className="flex items-start gap-3">
            <button data-first className="btn btn-primary btn-sm shrink-0" disabled={!count || !!plan?.wrong}>
              {count === 1 ? 'Make the file' : `Make ${count} files`}
            </button>
            <p className="text-small" aria-live="polite">
              {plan?.wrong ? (
                <b>{plan.wrong}</b>
              ) : (
                [plan && size(plan.bytes, plan.free), ...(plan?.says ?? [])].join(' ')
              )}
            </p>
          </div>
        </div>
      </form>
    </Card>
  )
}

/** The rows that are selected together, else all that feed main. */
function begin(p: Project): string[] {
  const { rows } = view()
  const main = p.channels.find((c) => c.kind === 'main')
  return rows.length > 1 ? rows : p.channels.filter((c) => c.output === main?.id).map((c) => c.id)
}

const size = (bytes: number, free: number) =>
  `About ${inUnits(bytes)}${free >= 0 ? ` of ${inUnits(free)} that are free` : ''}.`

const inUnits = (n: number) =>
  n >= 2 ** 30 ? `${(n / 2 ** 30).toFixed(1)} GB` : `${Math.max(1, Math.round(n / 2 ** 20))} MB`
