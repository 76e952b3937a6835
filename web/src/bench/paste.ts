import type { LineView } from '../api/types'
import { pasteClips } from '../clips/copy'
import { pastePoints } from '../lines/actions'
import { kept } from '../session/clipboard'
import { notice } from '../session/store'
import { pasteNodes } from './several'

/** Where the focus is: on a line, or on a scale that takes a value. */
type Where = { line?: LineView; name?: string; take?: (text: string) => boolean }

/** Pastes what was copied last, wherever the focus is. */
export async function paste({ line, name, take }: Where = {}) {
  const c = await kept()
  if (c.format === 'shoal chain 1') return pasteNodes(c.nodes)
  if (c.format === 'shoal clips 1') return pasteClips(c.kept)
  if (c.format === 'shoal points 1') return pastePoints(c.lines, line)
  if (take?.(c.text)) return
  if (take) notice(`“${c.text.slice(0, 40)}” is no value for ${name}.`, 'refused')
  else if (c.text.trim())
    notice('There are no stages, clips or points on the clipboard; a value is pasted on a scale.')
  else notice('There is nothing on the clipboard.')
}
