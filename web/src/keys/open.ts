import type { Channel } from '../api/types'
import { findFork, findStage } from '../document/chain'
import { openTreatment } from '../clips/treatment'
import { hear, listenToAll } from '../session/listening'
import { insertAt, placeOf, selectedChannel } from '../session/selected'
import { theProject } from '../session/store'
import { setView, view } from '../session/view'
import { rows as shownRows } from './steps'

/* What keys open, and how all of it is left again. */

export const soundings = () =>
  setView({ dialog: view().dialog?.kind === 'soundings' ? null : { kind: 'soundings' } })

export { openRemarks as remarks } from '../remarks/about'

export const rows = () => setView({ dialog: view().dialog?.kind === 'rows' ? null : { kind: 'rows' } })

export const print = (c: Channel) =>
  setView({ dialog: { kind: 'print', channel: c.id, target: c.kind === 'track' ? 'track' : 'file' } })

export const stems = () => setView({ dialog: { kind: 'stems' } })

/** The effects that can be put behind what is selected. */
export function effects() {
  if (view().clips.length) return openTreatment()
  const c = selectedChannel() ?? shownRows()[0]
  if (c) setView({ channel: c.id, dialog: { kind: 'effects', ...insertAt(c) } })
}

/** The effects that can stand in a stage's place. */
export function replacements(id: string) {
  const at = placeOf(id)
  if (at) setView({ dialog: { kind: 'effects', owner: at.owner, index: at.index, replace: id } })
}

/** The presets of a stage, or of the fork that is selected or a path of it. */
export function presets(id: string) {
  const p = theProject()
  const fork = p && findFork(p, id)
  if (fork) setView({ dialog: { kind: 'presets', of: 'fork', target: fork.fork.id } })
  else if (p && findStage(p, id)) setView({ dialog: { kind: 'presets', of: 'stage', target: id } })
}

export const rowPresets = (c: Channel) =>
  setView({ dialog: { kind: 'presets', of: 'channel', target: c.id } })

export const chainPresets = (owner: string) =>
  setView({ dialog: { kind: 'presets', of: 'chain', target: owner } })

/** Closes what is open; then ends listening to a part, and what is selected together. */
export function nothing() {
  if (view().dialog) return setView({ dialog: null })
  // from a stage of a treatment back to its clips
  if (view().clips.length && view().stage) return setView({ stage: '', together: [] })
  listenToAll()
  hear({ dry: '', share: '' })
  setView({ together: [], rows: [], clips: [], piece: null })
}
