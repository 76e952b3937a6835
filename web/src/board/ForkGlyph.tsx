/** A small braid: as many strands as there are paths, up to five, that divide and join. */
export function ForkGlyph({
  paths,
  width = 18,
  height = 14,
}: {
  paths: number
  width?: number
  height?: number
}) {
  const n = Math.min(paths, 5)
  const m = height / 2
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} className="shrink-0" aria-hidden>
      {Array.from({ length: n }, (_, i) => {
        const y = n === 1 ? m : 1.5 + (i * (height - 3)) / (n - 1)
        return (
          <path
            key={i}
            d={`M0 ${m}C${width * 0.25} ${m} ${width * 0.2} ${y} ${width * 0.4} ${y}H${width * 0.6}C${width * 0.8} ${y} ${width * 0.75} ${m} ${width} ${m}`}
            fill="none"
            stroke="var(--deep)"
            strokeWidth={1.2}
          />
        )
      })}
    </svg>
  )
}
