import { hear, listenTo, listenToAll } from '../session/listening'
import { session } from '../session/store'
import { locate, setLoop } from '../session/transport'
import { view } from '../session/view'
import { chosen, rowWith } from './chosen'

/* Three ways to hear a piece: alone, without its row's chain; through its row; in the mix. */

export type Way = 'alone' | 'row' | 'mix'

/** How the row of the selected clips is heard now. */
export function wayOf(row: string, v = view()): Way {
  if (v.listening?.node === row) return 'alone'
  return v.solo.length === 1 && v.solo[0] === row ? 'row' : 'mix'
}

/** Hears the selected clips one way; what is heard so already is heard in the mix again. */
export function hearPiece(way: Way) {
  const first = chosen()[0]
  const row = first && rowWith(first.id)
  if (!row) return
  const now = wayOf(row.id)
  if (now === 'alone') listenToAll()
  if (now === 'row') hear({ solo: [] })
  if (way === now) return
  if (way === 'alone') listenTo(row.id, false)
  if (way === 'row') hear({ solo: [row.id] })
}

/** Loops over the selected clips, or ends that. */
export function loopPiece() {
  const clips = chosen()
  const starts = session().timeline?.clips ?? {}
  const from = Math.min(...clips.map((c) => starts[c.id] ?? 0))
  const to = Math.max(...clips.map((c) => (starts[c.id] ?? 0) + c.frames))
  const { loop, looping } = view()
  if (looping && loop?.from === from && loop.to === to) return setLoop(null)
  setLoop({ from, to, name: clips.length === 1 ? clips[0]!.name : `${clips.length} clips` })
  locate(from)
}
