import { useEffect, useRef } from 'react'
import { theEngine } from '../session/sound'

const FLOOR = -96 // dB at the bottom of the picture

/** The live spectrum before (thin) and after (tinted) the stage, behind its curves. Go measures it. */
export function Spectrum({ stage, width, height }: { stage: string; width: number; height: number }) {
  const before = useRef<SVGPathElement>(null)
  const after = useRef<SVGPathElement>(null)
  useEffect(() => {
    const engine = theEngine()
    if (!engine) return
    engine.watch(stage)
    engine.onSpectrum = (v) => {
      const n = v.length / 2
      const line = (from: number) => {
        let d = ''
        for (let i = 0; i < n; i++) {
          const y = Math.min(height, (v[from + i]! / FLOOR) * height)
          d += `${i ? 'L' : 'M'}${((i / (n - 1)) * width).toFixed(1)} ${Math.max(0, y).toFixed(1)}`
        }
        return d
      }
      before.current?.setAttribute('d', line(0))
      after.current?.setAttribute('d', `${line(n)}L${width} ${height}L0 ${height}Z`)
    }
    return () => {
      engine.onSpectrum = () => undefined
      engine.watch('')
    }
  }, [stage, width, height])
  return (
    <g aria-hidden>
      <path ref={after} fill="var(--shoal-3)" opacity={0.75} />
      <path ref={before} fill="none" stroke="var(--deep)" strokeWidth={0.8} opacity={0.8} />
    </g>
  )
}
