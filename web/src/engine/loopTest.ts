import { IN_FRAMES, type Shared } from './ring'

/** How long is waited for a click to come back, in seconds, and how far above what is there anyway it must be. */
const PATIENCE = 1
const ABOVE = 8
/** Below that nothing counts as a click. */
const LEAST = 0.01

/** Plays a click, and finds after how many frames it comes back at the input: over a lead, or from a loudspeaker to a
    microphone. That is what must be taken off what is played to the song. */
export async function loopTest(context: AudioContext, shared: Shared): Promise<number> {
  const rate = context.sampleRate
  const click = context.createBuffer(1, Math.round(rate / 500), rate)
  click.getChannelData(0).forEach((_, i, x) => (x[i] = i % 8 < 4 ? 0.7 : -0.7))
  const source = new AudioBufferSourceNode(context, { buffer: click })
  source.connect(context.destination)
  const at = Math.round((context.currentTime + 0.3) * rate)
  source.start(at / rate)
  const head = new Int32Array(shared.inHead)
  const begin = at - Atomics.load(head, 1)
  const end = begin + PATIENCE * rate
  while (Atomics.load(head, 0) >>> 0 < end) await new Promise((r) => setTimeout(r, 50))
  const ring = new Float32Array(shared.inRing)
  const loud = (n: number) => Math.abs(ring[2 * (((n % IN_FRAMES) + IN_FRAMES) % IN_FRAMES)]!)
  return comesBack(loud, Math.max(0, begin - Math.round(rate / 4)), begin, end) - begin
}

/** The first frame from one on at which something comes that was not there before. */
export function comesBack(loud: (n: number) => number, before: number, from: number, to: number): number {
  let rest = 0
  for (let n = before; n < from; n++) rest = Math.max(rest, loud(n))
  for (let n = from; n < to; n++) if (loud(n) > Math.max(LEAST, ABOVE * rest)) return n
  throw new Error(
    'No click came back. Connect an output with the input, or hold the microphone to a loudspeaker, and measure again.',
  )
}
