/** A piece of the signal's way. */
export const Wire = ({ grow }: { grow?: boolean }) => (
  <span
    className={`h-px min-w-2 ${grow ? 'flex-1' : 'w-2 shrink-0'}`}
    style={{ background: 'var(--deep)' }}
  />
)
