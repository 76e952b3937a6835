import { soundAt } from '../api/soundAt'
import { projectId } from './store'

/** How many frames a page of a sound has: pages.Frames. */
const PAGE = 32768

/** A sound, or as much of it as is asked for, to be played beside the song by the browser itself. */
export async function bufferOf(context: AudioContext, hash: string, frames: number): Promise<AudioBuffer> {
  const out = context.createBuffer(2, frames, context.sampleRate)
  for (let page = 0; page * PAGE < frames; page++) {
    const r = await fetch(soundAt(projectId(), hash, `pcm/${page}`))
    if (!r.ok) break // it is shorter than that
    const channels = Number(r.headers.get('X-Channels') ?? 1)
    const all = new Float32Array(await r.arrayBuffer())
    const count = Math.min(all.length / channels, frames - page * PAGE)
    for (const side of [0, 1]) {
      const from = (Math.min(side, channels - 1) * all.length) / channels
      out.copyToChannel(all.subarray(from, from + count), side, page * PAGE)
    }
  }
  return out
}
