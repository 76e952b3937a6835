import { useRef, useState } from 'react'
import type { EffectInfo, Param, Stage } from '../api/types'
import { ScaleFigure } from '../controls/ScaleFigure'
import { place, said } from '../controls/format'
import { useParam } from '../controls/useParam'
import { useScale } from '../controls/useScale'

type Props = { owner: string; param: Param; value: number; of: string; caption: string; beside?: boolean }

/** A plumb: an upright scale that hangs under a stage. */
export function Plumb(props: Props) {
  return <PlumbScale {...props} {...useParam(props.owner, props.param, props.value, props.of)} />
}

const HEIGHT = 52
const TICKS = [0, 1, 2, 3, 4, 5, 6, 7, 8]

type State = Pick<ReturnType<typeof useParam>, 'moved' | 'theirs' | 'refused' | 'set' | 'onLine' | 'onMoves'>

/** Drag up and down (Shift for fine), arrows, type, double click resets. */
export function PlumbScale({ owner, param, of, caption, beside, ...p }: Props & State) {
  // what is two places long needs no third
  const rough = Math.abs(p.value) >= 10 ? { ...param, digits: 0 } : param
  const ruler = useRef<SVGSVGElement>(null)
  const [typing, setTyping] = useState(false)
  const name = `${caption} of ${of}`
  const hand = useScale({
    param,
    value: p.value,
    name,
    ruler,
    upright: true,
    onMove: p.set,
    onType: () => setTyping(true),
    onLine: p.onLine,
    onMoves: p.onMoves,
  })
  const height = beside ? 40 : HEIGHT
  const y = (1 - place(param, p.value)) * (height - 2) + 1
  return (
    <span
      className={`flex items-center ${beside ? 'gap-0.5' : 'flex-col'}`}
      data-says={param.says}
      onContextMenu={hand.menu}
      title={`${param.label}. ${param.says}`}
    >
      <svg
        ref={ruler}
        role="slider"
        tabIndex={-1}
        data-plumb={owner}
        aria-orientation="vertical"
        aria-label={name}
        aria-valuemin={param.min}
        aria-valuemax={param.max}
        aria-valuenow={p.value}
        aria-valuetext={said(param, p.value)}
        width={32}
        height={height}
        className="shrink-0 cursor-ns-resize touch-none overflow-visible"
        onPointerDown={hand.down}
        onPointerMove={hand.drag}
        onPointerUp={hand.up}
        onPointerCancel={hand.up}
        onDoubleClick={() => p.set(param.default, true)}
        onKeyDown={hand.key}
      >
        <rect width={32} height={height} fill="transparent" />
        {p.moved && (
          <rect
            x={13}
            y={(1 - p.moved.high) * (height - 2) + 1}
            width={10}
            height={Math.max(2, (p.moved.high - p.moved.low) * (height - 2))}
            fill="var(--shoal-3)"
          />
        )}
        <line x1={14} x2={14} y1={1} y2={height - 1} stroke="var(--deep)" />
        {TICKS.map((k) => {
          const at = 1 + (k / 8) * (height - 2)
          return <line key={k} x1={14} x2={k % 4 ? 18 : 22} y1={at} y2={at} stroke="var(--deep)" />
        })}
        <path
          d={`M4 ${y - 5}L13 ${y}L4 ${y + 5}Z`}
          fill={p.refused ? 'var(--loss)' : p.theirs ? 'var(--live)' : 'var(--ink)'}
        />
      </svg>
      <span className={`flex flex-col items-center ${beside ? '' : '-mt-0.5'}`}>
        <span className="soft text-small whitespace-nowrap">{caption}</span>
        <span className="-my-1">
          <ScaleFigure
            {...{ param: rough, value: p.value, name, typing, take: hand.take }}
            onTyping={setTyping}
            close
            back={() => ruler.current?.focus()}
          />
        </span>
      </span>
    </span>
  )
}

export type Hung = { param: Param; value: number; caption: string }

/** What hangs under a stage, as Go chose it. */
export function plumbsOf(
  stage: Stage,
  effect: EffectInfo | undefined,
  mix: Param | undefined,
  chosen: EffectInfo['plumbs'] | undefined,
): Hung[] {
  if (!effect || !mix) return []
  const at = (name: string) => {
    const param = effect.params.find((p) => p.name === name)
    return param && { param, value: stage.params[name] ?? param.default }
  }
  return (chosen ?? []).flatMap(({ param, named }): Hung[] => {
    if (param === 'mix') return [{ param: mix, value: stage.mix, caption: 'Mix' }]
    const found = at(param)
    const by = named ? at(named) : undefined
    return found ? [{ ...found, caption: by ? said(by.param, by.value) : found.param.label }] : []
  })
}
