import type { Worked } from '../api/types'
import { inWords } from './worked'

/** On a clip: how far what it will sound like has been worked out. Until then what was before is heard. */
export function WorkOnClip({ work, width }: { work: Worked; width: number }) {
  if (work.state === 'done') return null
  const under = work.state === 'failed' ? 'var(--loss)' : 'var(--ink)'
  return (
    <>
      <span
        role="progressbar"
        aria-label={inWords(work)}
        aria-valuenow={Math.round(work.progress * 100)}
        className="pointer-events-none absolute top-0 left-0 h-[3px]"
        style={{
          width: work.state === 'running' ? Math.max(4, work.progress * width) : width,
          background: under,
        }}
      />
      {width > 130 && (
        <span className="pointer-events-none absolute top-1 right-1 z-[2] max-w-[60%] truncate rounded-[2px] bg-[var(--card)] px-1 text-small">
          {inWords(work)}
        </span>
      )}
    </>
  )
}
