import type { Clip } from '../api/types'
import { useSession } from '../session/store'
import { openTakes, takesAt } from './takes'

/** A clip that plays one of several takes of its place lies on the others: how many there are, and the way to them. */
export function TakeStack({
  clip,
  row,
  start,
  width,
}: {
  clip: Clip
  row: string
  start: number
  width: number
}) {
  const channel = useSession((s) => s.project?.channels.find((c) => c.id === row))
  const count = useSession((s) =>
    s.project ? takesAt(s.project, row, start, start + clip.frames).filter((t) => !t.dropped).length : 0,
  )
  if (count < 2 || !channel || width < 28) return null
  return (
    <>
      {[1, 2].slice(0, count - 1).map((i) => (
        <span
          key={i}
          aria-hidden
          className="pointer-events-none absolute inset-y-0 -z-10 rounded-[2px] border"
          style={{
            left: -2 * i,
            right: 2 * i,
            top: -2 * i,
            background: 'var(--card)',
            borderColor: 'var(--hair)',
          }}
        />
      ))}
      <button
        className="absolute right-0.5 bottom-0 z-[3] h-6 min-w-6 bg-[var(--card)] px-1 text-small"
        style={{ color: 'var(--deep)' }}
        title={`${count} takes of this place ( Shift T )`}
        aria-label={`${count} takes of ${clip.name}`}
        onPointerDown={(e) => e.stopPropagation()}
        onClick={(e) => {
          e.stopPropagation()
          openTakes(channel, clip)
        }}
      >
        {width > 90 ? `${count} takes ▸` : count}
      </button>
    </>
  )
}
