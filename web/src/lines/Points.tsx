import type { SeenPoint } from '../api/types'

type Seen = { x: number; y: number }
const R = 3.5

/** The points of a line. Those that are not selected are one path, however many they are: a board may show
    thousands, and each element of its own would cost time in every picture. */
export function Points(p: {
  points: SeenPoint[]
  seenAt: (pt: SeenPoint) => Seen
  chosen: (pt: SeenPoint) => boolean
}) {
  const look = { stroke: 'var(--deep)', strokeWidth: 1.4 }
  const rings = p.points.filter((pt) => !p.chosen(pt)).map((pt) => ring(p.seenAt(pt)))
  return (
    <>
      <path d={rings.join('')} fill="var(--card)" {...look} />
      {p.points.filter(p.chosen).map((pt) => {
        const { x, y } = p.seenAt(pt)
        return <circle key={pt.tick} cx={x} cy={y} r={4.5} fill="var(--ink)" {...look} />
      })}
    </>
  )
}

const ring = ({ x, y }: Seen) =>
  `M${x.toFixed(1)} ${y.toFixed(1)}m-${R} 0a${R} ${R} 0 0 1 ${2 * R} 0a${R} ${R} 0 0 1-${2 * R} 0`
