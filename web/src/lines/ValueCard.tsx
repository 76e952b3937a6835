import { useState } from 'react'
import type { LineView } from '../api/types'
import { Card } from '../controls/Card'
import { figure, read, said } from '../controls/format'
import { setView, type Stretch } from '../session/view'
import * as lines from './actions'

type Props = {
  v: LineView
  stretch: Stretch
  points: boolean
  /** What has been typed of it already. */
  begun?: string
}

/** Types a value: for the selected points of a line, or to be held over a stretch with steps at both ends. */
export function ValueCard({ v, stretch, points, begun }: Props) {
  const first = v.points.find((p) => p.tick === stretch.ticks[0])
  const [wrong, setWrong] = useState(false)
  const take = (text: string) => {
    const value =
      v.param.taper === 'switch' ? (/^(1|on|yes)$/i.test(text.trim()) ? 1 : 0) : read(v.param, text)
    if (value === null) return setWrong(true)
    setView({ dialog: null })
    if (points) void lines.setPoints(v, stretch.ticks, { value })
    else void lines.holdStretch(v, stretch, value)
  }
  return (
    <Card title={points ? `Value of the points` : `Hold a value over the stretch`} width={380}>
      <label className="block text-label">
        {lines.labelOf(v)}, {said(v.param, v.param.min)} to {said(v.param, v.param.max)}
        <input
          data-first
          className={`input input-sm figure mt-2 w-full ${wrong ? 'input-error' : ''}`}
          aria-label="Value"
          defaultValue={
            begun ??
            (v.param.taper === 'switch' ? 'on' : figure(v.param, first?.value ?? v.base).replace('−', '-'))
          }
          onFocus={(e) => !begun && e.target.select()}
          onKeyDown={(e) => e.key === 'Enter' && take(e.currentTarget.value)}
        />
      </label>
      <p className="soft mt-2 text-small">
        {points
          ? 'Enter sets it.'
          : 'Enter holds it: before and behind the stretch the line stays what it is.'}
      </p>
    </Card>
  )
}
