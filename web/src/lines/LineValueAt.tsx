import { useRef } from 'react'
import type { LineView } from '../api/types'
import { said } from '../controls/format'
import { useLineValue } from './values'

/** Where a line stands at the playhead, in figures. */
export function LineValueAt({ v }: { v: LineView }) {
  const ref = useRef<HTMLSpanElement>(null)
  const say = (value: number) =>
    v.param.choices
      ? (v.param.choices[Math.round(value)] ?? '')
      : v.param.taper === 'switch'
        ? value
          ? 'on'
          : 'off'
        : said(v.param, value)
  useLineValue(v.owner, v.name, (now) => {
    const text = say(now.value)
    if (ref.current && ref.current.textContent !== text) ref.current.textContent = text
  })
  return (
    <span ref={ref} className="figure text-small" style={{ color: 'var(--ink)' }}>
      {v.count === 0 ? say(v.base) : ''}
    </span>
  )
}
