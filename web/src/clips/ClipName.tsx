import type { Clip, Timeline } from '../api/types'
import { useView } from '../session/view'

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

/** As much of a clip as its name can take at the edge. */
const WIDEST = 400

/** The names of clips that begin before what is seen of the song: at its edge. */
export function NamesAtEdge(p: { clips: Clip[]; timeline: Timeline; perPixel: number }) {
  // which they are and what room they have, as text: only when that changes are they drawn anew
  const there = useView((v) =>
    p.clips
      .map((c) => {
        const start = p.timeline.clips[c.id] ?? Infinity
        const room = Math.round((start + c.frames - v.scroll) / p.perPixel)
        return start > v.scroll || room < 56 ? '' : `${c.id} ${Math.min(room, WIDEST)}`
      })
      .filter(Boolean)
      .join(),
  )
  return (there ? there.split(',') : []).map((at) => {
    const [id, room] = at.split(' ') as [string, string]
    return (
      <span
        key={id}
        className="pointer-events-none absolute inset-y-0 left-0 mt-px"
        style={{ width: Number(room) }}
      >
        <ClipName clip={p.clips.find((c) => c.id === id)!} />
      </span>
    )
  })
}
