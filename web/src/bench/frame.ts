import { scaleLinear, scaleLog } from 'd3-scale'
import type { Picture } from '../api/types'

/** The axes of a picture as pixels. */
export type Frame = ReturnType<typeof frameOf>

export function frameOf(p: Picture, w: number, h: number) {
  const x = (p.x.log ? scaleLog() : scaleLinear()).domain([p.x.min, p.x.max]).range([0, w])
  const y = scaleLinear().domain([p.y.min, p.y.max]).range([h, 0])
  const floor = h
  const path = (xs: number[], ys: number[]) =>
    xs.map((v, i) => `${i ? 'L' : 'M'}${x(v).toFixed(1)} ${y(ys[i]!).toFixed(1)}`).join('')
  const zero = p.y.min < 0 && p.y.max > 0 && p.y.max === -p.y.min ? y(0) : h
  return {
    w,
    h,
    x,
    y,
    floor,
    path,
    area: (xs: number[], ys: number[]) =>
      `${path(xs, ys)}L${x(xs.at(-1)!).toFixed(1)} ${zero}L${x(xs[0]!).toFixed(1)} ${zero}Z`,
    xAt: (px: number) => x.invert(px),
    xMin: p.x.min,
    yMin: p.y.min,
    yMax: p.y.max,
  }
}
