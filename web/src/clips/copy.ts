import { change } from '../session/changes'
import { keep, type KeptClips } from '../session/clipboard'
import { theEngine } from '../session/sound'
import { notice } from '../session/store'
import { view } from '../session/view'
import { chosen } from './chosen'

/* Clips on the clipboard, with their sounds and treatments: for this project or another. */

export async function copyClips() {
  const clips = chosen()
  if (!clips.length) return
  const kept = await theEngine()!.ask('copied', { clips: clips.map((c) => c.id) })
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
