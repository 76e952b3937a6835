import type { Clip, Timeline } from '../api/types'
import type { Lens } from '../document/time'

/** From this height on fades and swell can be taken hold of, and a clip has room for its name. */
export const ROOMY = 44

export function ClipName({ clip }: { clip: Clip }) {
  return (
    <span
      className={`pointer-events-none absolute top-0.5 left-4 z-[2] max-w-[calc(100%-20px)] truncate bg-[var(--card)] pr-1 text-small font-semibold ${clip.mute ? 'struck' : ''}`}
    >
      {clip.name}
    </span>
  )
}

/** The names of clips that begin before what is seen of the song: at its edge. */
export function NamesAtEdge(p: { clips: Clip[]; timeline: Timeline; lens: Lens }) {
  return p.clips.map((c) => {
    const start = p.timeline.clips[c.id] ?? Infinity
    const to = p.lens.x(start + c.frames)
    if (p.lens.x(start) > 0 || to < 56) return null
    return (
      <span key={c.id} className="pointer-events-none absolute inset-y-0 left-0 mt-px" style={{ width: to }}>
        <ClipName clip={c} />
      </span>
    )
  })
}
