import { dismiss, useSession } from '../session/store'

/** What is under way and can be cancelled, and what was refused and why, or went well: in words. */
export function Notices() {
  const notices = useSession((s) => s.notices)
  const importing = useSession((s) => s.importing)
  const works = useSession((s) => s.works)
  return (
    <div className="flex min-w-0 flex-wrap items-center gap-x-3 gap-y-1" role="status" aria-live="polite">
      {importing && (
        <span className="flex items-center gap-2">
          Importing {importing.name}
          <progress className="progress progress-secondary w-32" value={importing.progress} max={1} />
        </span>
      )}
      {works.map((w) => (
        <span key={w.id} className="flex items-center gap-2">
          {w.text}
          <progress
            className="progress progress-secondary w-32"
            aria-label={`${w.text} ${Math.round(w.progress * 100)} %`}
            value={w.progress}
            max={1}
          />
          <span className="figure w-[38px] text-right">{Math.round(w.progress * 100)} %</span>
          <button className="btn btn-xs btn-outline" onClick={w.cancel}>
            Cancel
          </button>
        </span>
      ))}
      {notices.map((n) => (
        <span
          key={n.id}
          className="flex items-center gap-2 border-l-2 pl-2"
          style={{ borderColor: n.tone === 'refused' ? 'var(--loss)' : 'var(--deep)' }}
        >
          <span>{n.text}</span>
          {n.action && (
            <button
              className="btn btn-xs btn-outline"
              onClick={() => {
                n.action!.run()
                dismiss(n.id)
              }}
            >
              {n.action.text}
            </button>
          )}
          <button className="btn btn-xs btn-ghost px-1.5" aria-label="Put away" onClick={() => dismiss(n.id)}>
            ×
          </button>
        </span>
      ))}
    </div>
  )
}
