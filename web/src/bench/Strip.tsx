/** Without a row the bench keeps to a line, and the board has the room. */
export function Strip() {
  return (
    <section
      aria-label="Bench"
      className="soft flex h-8 shrink-0 items-center justify-between px-3.5 text-label"
      style={{ background: 'var(--paper-2)', borderTop: '2px solid var(--ink)' }}
    >
      <span>
        Select a row: its chain is spread out here, stage by stage, with what is most telling under each.
      </span>
      <span>
        <kbd className="kbd kbd-xs">↑</kbd> <kbd className="kbd kbd-xs">↓</kbd> rows ·{' '}
        <kbd className="kbd kbd-xs">?</kbd> keys
      </span>
    </section>
  )
}
