import type { ThenAndNow } from '../api/types'
import { bufferOf } from '../session/buffer'

/* Two sounds are played at once, and one of them is heard: to change from one to the other is a short cross-fade. */

/** For how many seconds they are played at most, and how long the cross-fade takes. */
const MOST = 60
const FADE = 0.01

export type Which = 'then' | 'now'

/** Plays a print and what it would be now, as loud as each other. */
export class Both {
  private context: AudioContext
  private gains: Record<Which, GainNode>
  private levels: Record<Which, number>

  private constructor(
    context: AudioContext,
    of: ThenAndNow,
    buffers: Record<Which, AudioBuffer>,
    ended: () => void,
  ) {
    this.context = context
    this.levels = { then: 1, now: 10 ** (of.gain / 20) }
    const play = (which: Which) => {
      const source = new AudioBufferSourceNode(context, { buffer: buffers[which] })
      const gain = new GainNode(context, { gain: which === 'then' ? this.levels.then : 0 })
      source.connect(gain).connect(context.destination)
      source.start()
      if (which === 'then') source.onended = ended
      return gain
    }
    this.gains = { then: play('then'), now: play('now') }
  }

  static async start(of: ThenAndNow, rate: number, ended: () => void): Promise<Both> {
    const context = new AudioContext({ sampleRate: rate })
    const frames = Math.min(of.frames, MOST * rate)
    const [then, now] = await Promise.all([of.then, of.now].map((hash) => bufferOf(context, hash, frames)))
    return new Both(context, of, { then: then!, now: now! }, ended)
  }

  hear(which: Which) {
    for (const x of ['then', 'now'] as const) {
      this.gains[x].gain.setTargetAtTime(x === which ? this.levels[x] : 0, this.context.currentTime, FADE / 3)
    }
  }

  stop() {
    void this.context.close()
  }
}
