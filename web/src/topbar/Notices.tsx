import { dismiss, useSession } from '../live/session'

/** What was refused and why, and what went well: in words, at the lower left, out of the way. */
export function Notices() {
  const notices = useSession((s) => s.notices)
  const importing = useSession((s) => s.importing)
  const works = useSession((s) => s.works)
  return (
    <div className="toast toast-start z-50 max-w-[520px]" role="status" aria-live="polite">
      {importing && (
        <div
          className="alert block border py-2 text-[13px]"
          style={{ background: 'var(--card)', borderColor: 'var(--deep)' }}
        >
          Importing {importing.name}
          <progress className="progress progress-secondary mt-1 w-full" value={importing.progress} max={1} />
        </div>
      )}
      {works.map((w) => (
        <div
          key={w.id}
          className="alert flex items-center gap-3 border py-2 text-[13px] whitespace-normal"
          style={{ background: 'var(--card)', borderColor: 'var(--deep)', color: 'var(--ink)' }}
        >
          <span className="min-w-[240px]">
            {w.text}
            <progress
              className="progress progress-secondary mt-1 block w-full"
              aria-label={`${w.text} ${Math.round(w.progress * 100)} %`}
              value={w.progress}
              max={1}
            />
          </span>
          <span className="figure w-[38px] text-right">{Math.round(w.progress * 100)} %</span>
          <button className="btn btn-xs btn-outline" onClick={w.cancel}>
            Cancel
          </button>
        </div>
      ))}
      {notices.map((n) => (
        <div
          key={n.id}
          className="alert flex justify-between gap-3 border py-2 text-[13px] whitespace-normal"
          style={{
            background: 'var(--card)',
            borderColor: n.tone === 'refused' ? 'var(--loss)' : 'var(--deep)',
            color: 'var(--ink)',
          }}
        >
          <span>{n.text}</span>
          {n.action && (
            <button
              className="btn btn-xs btn-outline ml-auto"
              onClick={() => {
                n.action!.run()
                dismiss(n.id)
              }}
            >
              {n.action.text}
            </button>
          )}
          <button className="btn btn-xs btn-ghost" aria-label="Put away" onClick={() => dismiss(n.id)}>
            ×
          </button>
        </div>
      ))}
    </div>
  )
}
