import type { Listening } from '../engine/ring'
import { findFork, findNode } from '../document/chain'
import { theEngine } from './sound'
import { notice, theProject } from './store'
import { setView, view } from './view'

/** The treatment that a stage, fork or path stands in. */
function treatmentOf(id: string) {
  const p = theProject()
  const row = findNode(p, id)?.channel.id ?? findFork(p, id)?.channel.id
  return p?.treatments?.find((t) => t.id === row)
}

/** Listening to one point: for this window only. */
export function listenTo(node: string, change: boolean, key = false) {
  if (treatmentOf(node))
    return notice(
      'A stage of a piece is heard with the piece: hear that alone, and switch the stage in and out.',
    )
  const now = view().listening
  if (now?.node === node && now.change === change && !!now.key === key) return listenToAll()
  listenAt({ node, change, key })
}

/** Hears only these paths of forks, together; none is everything again. */
export const hearPaths = (paths: string[]) => (paths.length ? listenAt({ paths }) : listenToAll())

/** Listens to a point, whatever was listened to before. */
export function listenAt(listening: Listening) {
  setView({ listening })
  theEngine()?.listen(listening)
}

/** Tells the engine what this window hears of the mix. */
export function hear(what: { solo?: string[]; dry?: string; share?: string; mono?: boolean }) {
  setView(what)
  const { solo, dry, share, mono } = view()
  theEngine()?.hear({ solo, dry, share, mono })
}

/** A row without its returns, or with only what comes back from them; again ends it. */
export function hearAlone(row: string, part: 'dry' | 'share') {
  const now = view()
  const on = now[part] !== row
  hear({ dry: part === 'dry' && on ? row : '', share: part === 'share' && on ? row : '' })
}

export function listenToAll() {
  if (!view().listening) return
  setView({ listening: null })
  theEngine()?.listen({})
}

export function showDepth(depth: 'peak' | 'rms') {
  setView({ depth })
  theEngine()?.rms(depth === 'rms')
}
