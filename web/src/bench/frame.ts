import type { Picture } from '../api/types'

/** The axes of a picture as pixels. */
export type Frame = ReturnType<typeof frameOf>

export function frameOf(p: Picture, w: number, h: number) {
  const log = p.x.log ?? false
  const x0 = log ? Math.log(p.x.min) : p.x.min
  const x1 = log ? Math.log(p.x.max) : p.x.max
  const x = (v: number) => (((log ? Math.log(v) : v) - x0) / (x1 - x0)) * w
  const y = (v: number) => h - ((v - p.y.min) / (p.y.max - p.y.min)) * h
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
    xAt: (px: number) => {
      const t = x0 + (px / w) * (x1 - x0)
      return log ? Math.exp(t) : t
    },
    xMin: p.x.min,
    yMin: p.y.min,
    yMax: p.y.max,
  }
}
