import type { Channel, Clip } from '../api/types'
import { theProject } from '../session/store'
import { setView, view } from '../session/view'

/* Which clips are selected in this window. */

export const chosen = (): Clip[] =>
  (theProject()?.channels ?? []).flatMap((c) => c.clips.filter((x) => view().clips.includes(x.id)))

/** The row that a clip lies on. */
export const rowWith = (clip: string): Channel | undefined =>
  theProject()?.channels.find((c) => c.clips.some((x) => x.id === clip))

export const rowsOf = (clips: Clip[]) => [...new Set(clips.map((c) => rowWith(c.id)?.id ?? ''))]

/** Selects a clip and its row; also adds it to those selected, or takes it out. */
export function pick(clip: string, row: string, also: boolean) {
  const now = view().clips
  const clips = !also ? [clip] : now.includes(clip) ? now.filter((x) => x !== clip) : [...now, clip]
  setView({ channel: row, stage: '', together: [], clips, piece: null, dialog: null })
}

/** Selects the next or the last clip of the row. */
export function pickBeside(by: 1 | -1) {
  const first = chosen()[0]
  const row = first && rowWith(first.id)
  if (!row) return
  const next = row.clips[row.clips.indexOf(first) + by]
  if (next) pick(next.id, row.id, false)
}
