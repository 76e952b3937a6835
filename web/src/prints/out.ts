import type { Channel, Clip, PrintSpec } from '../api/types'
import { answer, api } from '../api/client'
import { notice, projectId, refused, session } from '../session/store'
import { view } from '../session/view'

/* Work elsewhere: a file goes out that says where it belongs, and lands there when it is dropped back. */

type Span = { from: number; to: number }

/** From where the first of some clips begins to where the last ends. */
function spanOf(clips: Clip[]): Span {
  const starts = session().timeline!.clips
  const begun = clips.map((c) => ({ from: starts[c.id] ?? 0, to: (starts[c.id] ?? 0) + c.frames }))
  return { from: Math.min(...begun.map((x) => x.from)), to: Math.max(...begun.map((x) => x.to)) }
}

/** The range that is drawn over a row, if there is one. */
const drawnOver = (row: Channel): Span | null => {
  const { piece } = view()
  return piece?.rows.includes(row.id) ? { from: piece.from, to: piece.to } : null
}

/** Lets what lies on a row go out: these clips, else the range that is drawn over it, else all of it. */
export async function sendOut(row: Channel, clips: Clip[] = []) {
  const drawn = clips.length ? null : drawnOver(row)
  const of = clips.length ? clips : row.clips
  if (!of.length) return notice(`Nothing lies on ${row.name} that could be worked on elsewhere.`)
  const span = drawn ?? spanOf(of)
  const body: PrintSpec = {
    channel: row.id,
    from: Math.round(span.from),
    to: Math.round(span.to),
    tail: false,
    mute: false,
    target: 'file',
    format: 'wav32f',
    out: true,
    clips: clips.length ? clips.map((c) => c.id) : undefined,
  }
  try {
    await answer(api.POST('/api/projects/{id}/prints', { params: { path: { id: projectId() } }, body }))
    notice('A file is being made. Save it below, work on it, drop it back here: it lands where it belongs.')
  } catch (e) {
    refused(e)
  }
}
