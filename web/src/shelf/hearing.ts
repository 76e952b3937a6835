import type { Thing } from '../api/types'
import { tryChanges } from '../session/changes'
import { bufferOf } from '../session/buffer'
import { theEngine } from '../session/sound'
import { theProject } from '../session/store'
import { view } from '../session/view'
import { changesFor } from './actions'
import { trackForIt } from './track'

/* A thing on the shelf is heard by itself, beside the song; or, while that plays and a track is selected, in the mix:
   where it would lie on that track, from the next beat on. */

/** For how many seconds a thing is heard at most. */
const MOST = 60

/** Ticks of a beat. */
const BEAT = 960

/** How long the engine needs until what is tried is heard, in seconds. */
const AHEAD = 0.4

let context: AudioContext | null = null

/** Ends what is heard. */
export async function hush() {
  const c = context
  context = null
  await Promise.all([c?.close(), tryChanges([])])
}

/** Lets a thing be heard, and says how. */
export async function hear(t: Thing, ended: () => void): Promise<string> {
  await hush()
  const row = trackForIt()
  if (view().playing && row) {
    await tryChanges((await changesFor(t.id, row.id, soon(), { next: BEAT })).changes)
    return `on ${row.name}, from the next beat`
  }
  const mine = (context = new AudioContext({ sampleRate: t.kept.rate }))
  const buffer = await bufferOf(mine, t.heard, Math.min(t.frames, MOST * t.kept.rate))
  if (context !== mine) return '' // something else was asked for meanwhile
  const source = new AudioBufferSourceNode(mine, { buffer })
  source.connect(mine.destination)
  source.onended = ended
  source.start()
  return 'by itself'
}

/** When what is tried from now on can be heard: in a loop that ends before, from its begin on. */
function soon(): number {
  const at = (theEngine()?.heard()?.song ?? 0) + AHEAD * theProject()!.sampleRate
  const { loop, looping } = view()
  return looping && loop && at > loop.to ? loop.from : at
}
