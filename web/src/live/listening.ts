import { theEngine } from './session'
import { setView, view } from './view'

/** Listening to one point: for this window only. */
export function listenTo(node: string, change: boolean) {
  const now = view().listening
  if (now?.node === node && now.change === change) return listenToAll()
  setView({ listening: { node, change } })
  theEngine()?.listen(node, change)
}

export function listenToAll() {
  if (!view().listening) return
  setView({ listening: null })
  theEngine()?.listen('', false)
}

export function showDepth(depth: 'peak' | 'rms') {
  setView({ depth })
  theEngine()?.rms(depth === 'rms')
}
