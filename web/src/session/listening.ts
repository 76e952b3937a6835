import type { Listening } from '../engine/ring'
import { theEngine } from './sound'
import { setView, view } from './view'

/** Listening to one point: for this window only. */
export function listenTo(node: string, change: boolean, key = false) {
  const now = view().listening
  if (now?.node === node && now.change === change && !!now.key === key) return listenToAll()
  listen({ node, change, key })
}

/** Hears only these paths of forks, together; none is everything again. */
export const hearPaths = (paths: string[]) => (paths.length ? listen({ paths }) : listenToAll())

function listen(listening: Listening) {
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
