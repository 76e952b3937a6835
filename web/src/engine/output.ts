import { loopTest } from './loopTest'
import type { Shared } from './ring'

/** How long the browser may take to open the output before the song goes on without it, in ms. */
const PATIENCE = 2000
/** How often the output is looked at, in ms, and how many looks without progress mean that it is lost. */
const LOOK = 1000
const LOST = 3

/** The way from the ring to the ears: the browser's audio output. It may be missing, come later, or go: whoever waits
    is told. */
export class Output {
  private context: AudioContext
  private node: Promise<void>
  private there = false
  private looks: ReturnType<typeof setInterval>
  private seen = -1
  private stood = 0
  private closed = false

  constructor(
    readonly rate: number,
    private shared: Shared,
    private tell: (there: boolean) => void,
  ) {
    this.context = this.make()
    this.node = this.connect()
    navigator.mediaDevices?.addEventListener('devicechange', this.again)
    this.looks = setInterval(this.look, LOOK)
  }

  /** Seconds that the output takes by itself. */
  get latency() {
    return this.context.outputLatency || 0
  }

  private make() {
    const c = new AudioContext({ sampleRate: this.rate, latencyHint: 'interactive' })
    c.onstatechange = () => this.closed || this.is(c.state === 'running')
    return c
  }

  private connect() {
    const connected = this.join(this.context)
    connected.catch(() => undefined) // whoever opens it finds out
    return connected
  }

  private async join(c: AudioContext) {
    await c.audioWorklet.addModule('/worklet.js')
    const node = new AudioWorkletNode(c, 'ring-reader', {
      numberOfInputs: 0,
      outputChannelCount: [2],
      processorOptions: { head: this.shared.head, ring: this.shared.ring },
    })
    node.connect(c.destination)
  }

  private source: MediaStreamAudioSourceNode | null = null
  private writer: AudioWorkletNode | null = null

  /** After how many seconds what is played comes back at the input. */
  async measure(): Promise<number> {
    if (!this.source) throw new Error('Make a row ready that is recorded from your own input first.')
    return (await loopTest(this.context, this.shared)) / this.context.sampleRate
  }

  /** Lets what a browser's input gives flow into its ring; null ends it. */
  async takeIn(stream: MediaStream | null) {
    this.source?.disconnect()
    this.source = null
    if (!stream) {
      this.writer?.port.postMessage('end') // else it would go on to write silence
      this.writer = null
      return
    }
    await this.node
    const { head, inHead, inRing, inMarks } = this.shared
    this.writer ??= new AudioWorkletNode(this.context, 'ring-writer', {
      numberOfOutputs: 0,
      channelCount: 2,
      channelCountMode: 'max',
      processorOptions: { head, inHead, inRing, inMarks },
    })
    this.source = this.context.createMediaStreamSource(stream)
    this.source.connect(this.writer)
    this.source.connect(this.direct).connect(this.context.destination)
    this.ear = new AnalyserNode(this.context, { fftSize: 4096 })
    this.source.connect(this.ear)
  }

  private gain: GainNode | null = null
  private get direct() {
    return (this.gain ??= new GainNode(this.context, { gain: 0 }))
  }
  /** How loud what comes in goes straight out again, within a few milliseconds: a factor. */
  hearDirectly(factor: number) {
    this.direct.gain.setTargetAtTime(factor, this.context.currentTime, 0.01)
  }

  private ear: AnalyserNode | null = null
  /** The peak of what has come in during the last moment, in dB: also while the song stands. */
  get arriving(): number {
    if (!this.ear || !this.source) return -120
    const x = new Float32Array(this.ear.fftSize)
    this.ear.getFloatTimeDomainData(x)
    return 20 * Math.log10(Math.max(1e-6, ...x.map(Math.abs)))
  }

  private is(there: boolean) {
    if (there === this.there) return
    this.there = there
    this.stood = 0
    this.tell(there)
  }

  /** Resolves when there is an output, or when it has been waited for long enough. */
  async open() {
    const opened = Promise.all([this.node, this.context.resume()]).then(
      () => true,
      () => false,
    )
    const late = new Promise<boolean>((r) => setTimeout(() => r(false), PATIENCE))
    const there = (await Promise.race([opened, late])) && this.context.state === 'running'
    if (there) this.is(true)
    else this.tell((this.there = false))
  }

  /** A device came, went or changed: what had no output tries again, with a new one where the old one is lost. */
  private again = () => {
    if (this.closed || this.there) return
    if (this.stood >= LOST) {
      this.context.onstatechange = null
      void this.context.close().catch(() => undefined)
      this.context = this.make()
      this.node = this.connect()
      this.writer = null // what came in is asked for anew
      this.gain = null
    }
    void this.context.resume().catch(() => undefined)
  }

  /** An output can be lost without a word: then its clock stands. */
  private look = () => {
    const now = this.context.currentTime
    this.stood = now === this.seen ? this.stood + 1 : 0
    this.seen = now
    if (this.context.state !== 'running') return
    if (this.there && this.stood >= LOST) {
      this.there = false
      this.tell(false)
    } else if (!this.there && this.stood === 0) this.is(true)
  }

  close() {
    this.closed = true
    clearInterval(this.looks)
    navigator.mediaDevices?.removeEventListener('devicechange', this.again)
    // the worklet needs a moment to fade
    setTimeout(() => void this.context.close().catch(() => undefined), 50)
  }
}
