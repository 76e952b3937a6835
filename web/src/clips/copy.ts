import { change } from '../session/changes'
import { keep, type KeptClips } from '../session/clipboard'
import { rowOfOwner } from '../session/outline'
import { theEngine } from '../session/sound'
import { notice, session, theProject } from '../session/store'
import { view } from '../session/view'
import { chosen, rowWith } from './chosen'

/* Clips on the clipboard, with their sounds and treatments: for this project or another. */

export async function copyClips() {
  const clips = chosen()
  const p = theProject()
  const starts = session().timeline?.clips ?? {}
  if (!p || !clips.length) return
  const tracks = p.channels.filter((c) => c.kind === 'track').map((c) => c.id)
  const row = (id: string) => tracks.indexOf(rowWith(id)?.id ?? '')
  const top = Math.min(...clips.map((c) => row(c.id)))
  const first = Math.min(...clips.map((c) => starts[c.id] ?? 0))
  const treatments = p.treatments?.filter((t) => clips.some((c) => c.treatment === t.id))
  const kept: KeptClips = {
    rate: p.sampleRate,
    clips: clips.map((clip) => ({ clip, down: row(clip.id) - top, by: (starts[clip.id] ?? 0) - first })),
    audio: p.audio.filter((a) => clips.some((c) => c.audio === a.hash)),
    treatments,
    lines: p.lines.filter((l) => treatments?.some((t) => t.id === rowOfOwner(l.owner))),
  }
  const what = clips.length === 1 ? `${clips[0]!.name} is` : `${clips.length} clips are`
  await keep({ format: 'shoal clips 1', kept }, `${what} on the clipboard.`)
}

/** Puts what was copied down at the playhead, on the selected track and those below it. */
export function pasteClips(kept: KeptClips) {
  const row = view().channel
  if (!row) return notice('Select a track to paste into.')
  const at = Math.round(theEngine()?.heard()?.song ?? 0)
  return change(kept.clips.length === 1 ? 'Paste a clip' : `Paste ${kept.clips.length} clips`, {
    type: 'clips.paste',
    do: { ...kept, row, at, snap: {} },
  })
}
