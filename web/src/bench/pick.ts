import type { MouseEvent } from 'react'
import { select } from '../session/selected'
import { reach, toggle } from './several'

/** A press on a stage: alone it selects; with Ctrl it adds or takes away, with Shift it selects as far as here. */
export function pick(e: MouseEvent, channel: string, stage: string) {
  e.stopPropagation()
  if (e.ctrlKey || e.metaKey) toggle(channel, stage)
  else if (e.shiftKey) reach(channel, stage)
  else select(channel, stage)
}
