import type { Picture, Stage } from '../api/types'
import { useStagePicture } from '../bench/picture'

/** A stage's picture, small: its main line only. */
export const MiniPicture = ({ stage, ...size }: { stage: Stage; width?: number; height?: number }) => (
  <SmallPicture picture={useStagePicture(stage)} {...size} />
)

/** A picture that is there already, small. */
export function SmallPicture({
  picture: p,
  width = 34,
  height = 14,
}: {
  picture: Picture | null
  width?: number
  height?: number
}) {
  if (!p) return <svg width={width} height={height} aria-hidden />
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden>
      {p.bars?.map((b, i) => {
        const x = (b.x / (p.x.max || 1)) * (width - 2) + 1
        const y = (1 - (b.y - p.y.min) / (p.y.max - p.y.min)) * height
        return <line key={i} x1={x} x2={x} y1={height - 1} y2={y} stroke="var(--deep)" strokeWidth={1.4} />
      })}
      <path d={small(p, width, height)} fill="none" stroke="var(--deep)" strokeWidth={1.4} />
    </svg>
  )
}

function small(p: Picture, w: number, h: number): string {
  const main = p.curves.find((c) => c.role === 'main')
  if (!main) return ''
  const log = p.x.log
  const x0 = log ? Math.log(p.x.min) : p.x.min
  const x1 = log ? Math.log(p.x.max) : p.x.max
  // the middle half of the range, so that gentle curves can be seen
  const span = (p.y.max - p.y.min) * (p.y.min < 0 && p.y.max > 0 && p.y.max === -p.y.min ? 0.55 : 1)
  const mid = (p.y.max + p.y.min) / 2
  let d = ''
  main.x.forEach((x, i) => {
    if (i % 6 !== 0 && i !== main.x.length - 1) return
    const px = (((log ? Math.log(x) : x) - x0) / (x1 - x0)) * w
    const py = Math.min(Math.max(h / 2 - ((main.y[i]! - mid) / span) * (h - 2), 1), h - 1)
    d += `${d ? 'L' : 'M'}${px.toFixed(1)} ${py.toFixed(1)}`
  })
  return d
}
