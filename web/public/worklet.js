/* The last step to the ears: takes frames from the shared ring. Where the ring
   has run dry or has been emptied on purpose, it fades instead of breaking off. */
const WRITE = 0
const READ = 1
const EPOCH = 2
const UNDERRUNS = 3
const RUNNING = 4
const NOW = 5 // the frame of the clock at which the reader was asked last, and what it had read before
const BEFORE = 6
const FADE = 240

class RingReader extends AudioWorkletProcessor {
  constructor(options) {
    super()
    const { head, ring } = options.processorOptions
    this.head = new Int32Array(head)
    this.ring = new Float32Array(ring)
    this.frames = this.ring.length / 2
    this.epoch = 0
    this.last = [0, 0]
    this.fadeOut = 0
    this.fadeIn = FADE
  }

  process(_inputs, outputs) {
    const [left, right] = outputs[0]
    const epoch = Atomics.load(this.head, EPOCH)
    if (epoch !== this.epoch) {
      this.epoch = epoch
      this.breakOff()
    }
    const read = Atomics.load(this.head, READ)
    Atomics.store(this.head, NOW, currentFrame | 0)
    Atomics.store(this.head, BEFORE, read)
    const ready = (Atomics.load(this.head, WRITE) - read) | 0
    // until the ring is primed, what is in it waits: a start must not live from hand to mouth
    const running = Atomics.load(this.head, RUNNING) === 1
    const n = running ? Math.min(ready, left.length) : 0
    for (let i = 0; i < n; i++) {
      const at = (((read + i) >>> 0) % this.frames) * 2
      this.put(left, right, i, this.ring[at], this.ring[at + 1])
    }
    if (n < left.length) {
      if (running) Atomics.add(this.head, UNDERRUNS, 1)
      this.breakOff()
      for (let i = n; i < left.length; i++) this.put(left, right, i, 0, 0)
    }
    if (n > 0) {
      // an epoch may have emptied the ring meanwhile: then its reader position stands
      Atomics.compareExchange(this.head, READ, read, (read + n) | 0)
      Atomics.notify(this.head, READ)
    }
    return true
  }

  breakOff() {
    if (this.fadeIn > 0) {
      this.fadeOut = FADE
      this.from = [this.last[0], this.last[1]]
    }
    this.fadeIn = 0
  }

  put(left, right, i, l, r) {
    if (this.fadeIn < FADE && (l !== 0 || r !== 0 || this.fadeIn > 0)) {
      const g = 0.5 - 0.5 * Math.cos((Math.PI * this.fadeIn) / FADE)
      this.fadeIn++
      l *= g
      r *= g
    }
    if (this.fadeOut > 0) {
      this.fadeOut--
      const g = 0.5 - 0.5 * Math.cos((Math.PI * this.fadeOut) / FADE)
      l += this.from[0] * g
      r += this.from[1] * g
    }
    left[i] = l
    right[i] = r
    this.last[0] = l
    this.last[1] = r
  }
}

/** What arrives at the window's own input, into a second ring. Beside every portion stands which frame of the first ring was
    heard just then: whatever playback does, that tells where in the song it belongs. */
class RingWriter extends AudioWorkletProcessor {
  constructor(options) {
    super()
    const { head, inHead, inRing, inMarks } = options.processorOptions
    this.head = new Int32Array(head)
    this.inHead = new Int32Array(inHead)
    this.ring = new Float32Array(inRing)
    this.marks = new Int32Array(inMarks)
    this.frames = this.ring.length / 2
    this.on = true
    this.port.onmessage = () => (this.on = false)
  }

  process(inputs) {
    if (!this.on) return false
    const [left, right] = inputs[0]
    const write = Atomics.load(this.inHead, 0) >>> 0
    const n = left ? left.length : 128
    const portion = (write / 128) % (this.marks.length / 2)
    // in this same moment the reader may have been asked already, or not yet
    const asked = Atomics.load(this.head, NOW) === (currentFrame | 0)
    this.marks[2 * portion] = Atomics.load(this.head, asked ? BEFORE : READ)
    this.marks[2 * portion + 1] = Atomics.load(this.head, RUNNING)
    const first = write % this.frames
    for (let i = 0; i < n; i++) {
      const l = left ? left[i] : 0
      this.ring[2 * (first + i)] = l
      this.ring[2 * (first + i) + 1] = right ? right[i] : l
    }
    Atomics.store(this.inHead, 1, (currentFrame - write) | 0) // which frame of the clock the ring's first would be
    Atomics.store(this.inHead, 0, (write + n) | 0)
    return true
  }
}

registerProcessor('ring-reader', RingReader)
registerProcessor('ring-writer', RingWriter)
