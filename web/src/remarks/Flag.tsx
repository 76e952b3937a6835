/** The mark of a remark: a slip of paper with a folded corner, filled where it waits for whoever looks. */
export function Flag({ waits, size = 14 }: { waits: boolean; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 14 14" aria-hidden className="inline-block shrink-0">
      <path
        d="M1.5 1.5H9.5L12.5 4.5V12.5H1.5Z"
        fill={waits ? 'var(--ink)' : 'var(--card)'}
        stroke="var(--ink)"
        strokeWidth={1.2}
      />
      <path d="M4 6.5H10M4 9.5H8" stroke={waits ? 'var(--paper)' : 'var(--ink)'} strokeWidth={1.2} />
    </svg>
  )
}
