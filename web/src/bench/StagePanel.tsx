import { useState } from 'react'
import type { Channel, EffectInfo, Param, Stage } from '../api/types'
import { ParamControl } from '../controls/ParamControl'
import { effectOf, stageName } from '../document/chain'
import { useSession } from '../session/store'
import { useView } from '../session/view'
import { Figures } from './Figures'
import { PictureView } from './PictureView'
import { StageFoot } from './StageFoot'
import { StageHead } from './StageHead'
import { StageMore } from './StageMore'
import { useHint } from './useHint'

type Props = { stage: Stage; channel: Channel; pinned?: boolean; narrow?: boolean }

/** A stage on the bench: its picture first, its parameters as scales in columns beside it. */
export function StagePanel({ stage, channel, pinned, narrow }: Props) {
  const effects = useSession((s) => s.effects)
  const moving = useSession((s) => s.moving)
  const height = useView((v) => v.benchHeight)
  const effect = effectOf(stage, effects)
  const sheets = sheetsOf(effect)
  const [sheet, setSheet] = useState(sheets.length === 8 ? sheets[2]! : (sheets[0] ?? ''))
  const { hint, watch } = useHint()
  if (!effect) return <p className="soft p-5">This program does not know the effect {stage.effect}.</p>
  const value = (p: Param) => moving[`${stage.id} ${p.name}`] ?? stage.params[p.name] ?? p.default
  const matters = (p: Param) => {
    const other = p.when && effect.params.find((x) => x.name === p.when!.name)
    return !other || p.when!.is.includes(value(other))
  }
  const name = stageName(stage, effects)
  const numbered = isNumbered(sheets)
  const shown = effect.params.filter((p) => (on(p) === sheet || (numbered && on(p) === '')) && matters(p))
  const first = !numbered && sheet === (sheets[0] ?? '')
  return (
    <div
      className={`flex h-full flex-col px-3.5 pt-1 pb-0.5 ${narrow ? 'w-[480px]' : 'w-[552px]'}`}
      data-panel={stage.id}
      role="group"
      aria-label={`${name} on ${channel.name}`}
      {...watch}
    >
      <StageHead stage={stage} channel={channel} effect={effect} pinned={pinned}>
        {sheets.length > 1 && !(numbered && sheets.length <= 8) && (
          <Sheets sheets={sheets} at={sheet} onPick={setSheet} />
        )}
      </StageHead>
      <div
        className={`grid min-h-0 flex-1 gap-4 ${narrow ? 'grid-cols-[140px_minmax(0,1fr)]' : 'grid-cols-[212px_minmax(0,1fr)]'}`}
      >
        <PictureView
          stage={stage}
          effect={effect}
          watched={!pinned}
          hint={hint}
          width={narrow ? 140 : 212}
          height={height - 90}
          onGroup={(g) => sheets.includes(g) && setSheet(g)}
        />
        <div className="flex min-h-0 flex-col">
          {numbered && sheets.length <= 8 && <Sheets sheets={sheets} at={sheet} onPick={setSheet} />}
          <div className="min-h-0 flex-1 overflow-y-auto">
            {shown.length > 12 ? (
              <Figures owner={stage.id} params={shown} value={value} of={name} />
            ) : (
              <div className="grid grid-cols-2 gap-x-4">
                {shown.map((p) => (
                  <ParamControl key={p.name} owner={stage.id} param={p} value={value(p)} of={name} />
                ))}
                {(first || numbered) && !effect.whole && <Mix stage={stage} effect={effect} name={name} />}
                {sheet === (sheets.at(-1) ?? '') && <StageMore stage={stage} effect={effect} name={name} />}
              </div>
            )}
          </div>
          {!effect.whole && <StageFoot stage={stage} effect={effect} />}
        </div>
      </div>
    </div>
  )
}

const on = (p: Param) => p.group ?? p.sheet ?? ''

/** The sheets of an effect's scales, in order: the first has no name, unless all that there is stands in groups. */
function sheetsOf(effect: EffectInfo | undefined): string[] {
  const all = [...new Set((effect?.params ?? []).map(on))]
  const named = all.filter(Boolean)
  return isNumbered(named) || !named.length ? named : ['', ...named]
}

/** Many of a kind, such as bands: they are told apart by number, and what is of all stands beside each. */
const isNumbered = (sheets: string[]) => sheets.length > 3

function Mix({ stage, effect, name }: { stage: Stage; effect: EffectInfo; name: string }) {
  const mix = useSession((s) => s.strip?.mix)
  if (!mix) return null
  return <ParamControl owner={stage.id} param={{ ...mix, default: effect.mix }} value={stage.mix} of={name} />
}

function Sheets({ sheets, at, onPick }: { sheets: string[]; at: string; onPick: (s: string) => void }) {
  const numbered = isNumbered(sheets)
  return (
    <div
      className={`mb-0.5 flex ${sheets.length > 8 ? 'gap-0' : 'gap-1'}`}
      role="tablist"
      aria-label="Groups"
    >
      {sheets.map((s, i) => (
        <button
          key={s}
          role="tab"
          aria-selected={s === at}
          className={`h-6 min-w-6 rounded-[3px] ${numbered ? 'flex-1 px-0' : 'flex-auto px-2'} text-label whitespace-nowrap ${s === at ? 'font-bold' : ''}`}
          style={s === at ? { background: 'var(--ink)', color: 'var(--paper)' } : undefined}
          title={s || 'What it mainly does'}
          onClick={() => onPick(s)}
        >
          {numbered ? i + 1 : s || 'Main'}
        </button>
      ))}
    </div>
  )
}
