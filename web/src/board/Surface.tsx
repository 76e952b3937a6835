import { memo } from 'react'

/** The surface of a row: a soft line with three offset tints of water below. It does not move. */
export const Surface = memo(function Surface({ seed, lit }: { seed: number; lit: boolean }) {
  const wave = (rise: number, shift: number) => {
    let d = ''
    for (let x = 0; x <= 1280; x += 16) {
      const y =
        6 + rise + 1.9 * Math.sin((x + shift) / 71 + seed) + 1.2 * Math.sin((x + shift) / 29 + 2.3 * seed)
      d += `${x === 0 ? 'M' : 'L'}${x} ${y.toFixed(1)}`
    }
    return d
  }
  const line = wave(0, 0)
  return (
    <svg
      className="pointer-events-none absolute inset-x-0 top-0 h-full w-full"
      preserveAspectRatio="none"
      viewBox="0 0 1280 64"
      aria-hidden
    >
      <path d={`${line}L1280 64L0 64Z`} fill="var(--shoal-3)" />
      <path d={`${wave(3, 40)}L1280 64L0 64Z`} fill="var(--shoal-2)" />
      <path d={`${wave(7, 90)}L1280 64L0 64Z`} fill="var(--shoal-1)" />
      <path
        d={line}
        fill="none"
        stroke={lit ? 'var(--ink)' : 'var(--deep)'}
        strokeWidth={lit ? 2 : 1.2}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  )
})
