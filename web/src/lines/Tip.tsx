/** What a point is, beside it; at the end of the window on its other side. */
export function Tip(p: { text: string; seen: { x: number; y: number }; edge: number }) {
  const end = p.seen.x > p.edge - 90 // the window ends there
  return (
    <text
      className="figure"
      x={p.seen.x + (end ? -8 : 8)}
      y={Math.max(11, p.seen.y - 5)}
      textAnchor={end ? 'end' : 'start'}
      fontSize={12}
      fill="var(--ink)"
    >
      {p.text}
    </text>
  )
}
