/** A piece of the signal's way. */
export const Wire = ({ grow }: { grow?: boolean }) => (
  <span
    className={`h-px min-w-1 ${grow ? 'flex-1' : 'w-1.5 shrink-0'}`}
    style={{ background: 'var(--deep)' }}
  />
)
