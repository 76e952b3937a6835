import type { Picture } from '../api/types'
import type { Frame } from './frame'

/** The axes behind a picture, with figures. */
export function PictureGrid({ p, f, w, h }: { p: Picture; f: Frame; w: number; h: number }) {
  // figures that would run into each other are left out
  let last = -Infinity
  const room = (x: number) => {
    if (x - last < 34) return false
    last = x
    return true
  }
  const short = (v: number) => (p.x.unit === 'Hz' && v >= 1000 ? `${v / 1000}k` : String(v).replace('-', '−'))
  return (
    <g stroke="var(--shoal-3)" strokeWidth={0.8} fontSize={12}>
      {p.x.ticks.map((t, i) => (
        <g key={`x${t}`}>
          <line x1={f.x(t)} x2={f.x(t)} y1={0} y2={h} />
          {(p.x.log ? [100, 1000, 10000].includes(t) : p.x.ticks.length < 8 || i % 2 === 0) &&
            room(f.x(t)) && (
              <text className="figure" x={f.x(t) + 2} y={h - 3} fill="var(--soft)" stroke="none">
                {short(t)}
              </text>
            )}
        </g>
      ))}
      {p.y.ticks.map((t) => (
        <g key={`y${t}`}>
          <line x1={0} x2={w} y1={f.y(t)} y2={f.y(t)} />
          <text className="figure" x={2} y={f.y(t) - 2} fill="var(--soft)" stroke="none">
            {String(Math.round(t * 100) / 100).replace('-', '−')}
          </text>
        </g>
      ))}
      <text
        x={w - 4}
        y={10}
        textAnchor="end"
        fill="var(--soft)"
        stroke="none"
        fontSize={12}
        fontStyle="italic"
      >
        {p.y.unit ? `${p.y.label}, ${p.y.unit}` : p.y.label}
      </text>
    </g>
  )
}
