import { memo } from 'react'

/** The water of the bench: its surface runs where the stages stand. */
export const Sea = memo(function Sea({ line, seed }: { line: number; seed: number }) {
  const wave = (down: number, shift: number) => {
    let d = ''
    for (let x = 0; x <= 2560; x += 16) {
      const y =
        line + down + 2 * Math.sin((x + shift) / 83 + seed) + 1.2 * Math.sin((x + shift) / 31 + 2 * seed)
      d += `${x === 0 ? 'M' : 'L'}${x} ${y.toFixed(1)}`
    }
    return d
  }
  return (
    <svg
      className="pointer-events-none absolute inset-0 h-full w-full"
      aria-hidden
      preserveAspectRatio="none"
    >
      <path d={`${wave(0, 0)}V2000H0Z`} fill="var(--shoal-2)" />
      <path d={`${wave(5, 60)}V2000H0Z`} fill="var(--shoal-1)" />
      <path d={wave(0, 0)} fill="none" stroke="var(--deep)" strokeWidth={1.4} />
    </svg>
  )
})
