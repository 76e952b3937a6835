import { useState } from 'react'
import type { Param } from '../api/types'
import { ScaleFigure } from '../controls/ScaleFigure'
import { said } from '../controls/format'
import { useParam } from '../controls/useParam'
import { useScale } from '../controls/useScale'
import { useRef } from 'react'

type Props = { owner: string; params: Param[]; value: (p: Param) => number; of: string }

/** Many parameters of a kind, which the picture draws: a figure each, stepped by arrows, dragged or typed. */
export const Figures = ({ owner, params, value, of }: Props) => (
  <div className="grid grid-cols-4 gap-x-2">
    {params.map((p) => (
      <Figure key={p.name} owner={owner} param={p} value={value(p)} of={of} />
    ))}
  </div>
)

function Figure(f: { owner: string; param: Param; value: number; of: string }) {
  const p = useParam(f.owner, f.param, f.value, f.of)
  const ruler = useRef<SVGSVGElement>(null)
  const [typing, setTyping] = useState(false)
  const name = f.param.label
  const hand = useScale({ ...p, param: f.param, name, ruler, onMove: p.set, onType: () => setTyping(true) })
  return (
    <span className="flex h-6 items-center justify-between" title={f.param.says}>
      <svg
        ref={ruler}
        role="slider"
        tabIndex={0}
        aria-label={name}
        aria-valuemin={f.param.min}
        aria-valuemax={f.param.max}
        aria-valuenow={p.value}
        aria-valuetext={said(f.param, p.value)}
        width={46}
        height={24}
        className="cursor-ew-resize touch-none"
        onPointerDown={hand.down}
        onPointerMove={hand.drag}
        onPointerUp={hand.up}
        onPointerCancel={hand.up}
        onKeyDown={hand.key}
      >
        <text y={16} fontSize={12} fill="var(--soft)">
          {name.replace(' Hz', '')}
        </text>
      </svg>
      <span className="w-[40px]">
        <ScaleFigure
          {...{ param: f.param, value: p.value, name, typing, take: hand.take }}
          onTyping={setTyping}
          small
          back={() => ruler.current?.focus()}
        />
      </span>
    </span>
  )
}
