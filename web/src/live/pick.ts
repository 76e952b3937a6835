import type { MouseEvent } from 'react'
import * as act from './actions'
import { reach, toggle } from './selection'

/** A press on a stage: alone it selects; with Ctrl it adds or takes away, with Shift it selects as far as here. */
export function pick(e: MouseEvent, channel: string, stage: string) {
  e.stopPropagation()
  if (e.ctrlKey || e.metaKey) toggle(channel, stage)
  else if (e.shiftKey) reach(channel, stage)
  else act.select(channel, stage)
}
