// @vitest-environment node
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Exports } from './exports'
import { type FromWorker, HEAD, RING_FRAMES, SLOT_VALUES, SLOTS, STAMP, STATE, type ToWorker } from './ring'

/* The worker around an engine that only counts: its ring, its turns, what it says. */

vi.mock('./gen/wasm_exec.js', () => ({}))

/** How fast a machine is must fail no test. */
const PATIENT = { timeout: 60_000 }

const BLOCK = 128

/** The smallest program there is: its mark and its version. */
const program = new WebAssembly.Module(new Uint8Array([0, 0x61, 0x73, 0x6d, 1, 0, 0, 0]))

/** An engine whose sound is the number of each frame. */
class FakeEngine {
  mem = new WebAssembly.Memory({ initial: 4 })
  text = ''
  frame = 0
  rolling = false
  hushed = false
  missing = 0 // pages that are not there
  refuses = ''
  calls: string[] = []
  end: () => void = () => undefined

  private at = 65536
  exports(): Exports {
    const note =
      (name: string) =>
      (...of: unknown[]) => {
        this.calls.push(`${name} ${of.join(' ')}`.trim())
        return 0
      }
    const leave = (text: string) => {
      this.text = text
      const bytes = new TextEncoder().encode(text)
      new Uint8Array(this.mem.buffer).set(bytes, this.at)
      return bytes.length
    }
    let length = 0
    const say = (text: string) => (length = leave(text))
    const read = (n: number) => new TextDecoder().decode(new Uint8Array(this.mem.buffer).slice(0, n))
    const known: Partial<Exports> = {
      mem: this.mem,
      room: () => 0,
      textAt: () => this.at,
      textLength: () => length,
      outAt: () => 131072,
      levelsAt: () => 196608,
      document: (n) => {
        this.calls.push(`document ${(JSON.parse(read(n)) as { name: string }).name}`)
        if (!this.refuses) return 0
        say(this.refuses)
        return 1
      },
      revision: (n) => {
        this.calls.push(`revision ${read(n)}`)
        if (!this.refuses) return 0
        say(this.refuses)
        return 1
      },
      timeline: () => void say('{"bars":[]}'),
      layout: () => void say('[]'),
      soundings: () => void say('[]'),
      costs: () => void say('[]'),
      broken: () => void say('null'),
      rehearse: () => 0,
      need: () => {
        say(JSON.stringify(Array.from({ length: this.missing }, (_, page) => ({ hash: 'h', page }))))
        return this.missing
      },
      play: () => {
        this.calls.push('play')
        this.rolling = true
      },
      stop: () => {
        this.calls.push('stop')
        this.rolling = false
        this.hushed = true
      },
      state: () => (this.rolling ? (this.missing ? STATE.waiting : STATE.playing) : STATE.stopped),
      quiet: () => (this.hushed ? 1 : 0),
      trip: () => 0,
      spot: () => 0,
      readLevels: () => 0,
      plan: () => 1,
      position: () => this.frame,
      page: () => void (this.missing = Math.max(0, this.missing - 1)),
      ask: (n) => {
        const [name, of] = read(n).split('\n')
        this.calls.push(`ask ${name}`)
        if (name === 'nonsense') {
          say('nobody can answer "nonsense"')
          return 1
        }
        say(JSON.stringify({ asked: of }))
        return 0
      },
      render: () => {
        if (this.missing) return 0
        const out = new Float32Array(this.mem.buffer, 131072, 2 * BLOCK)
        for (let i = 0; i < BLOCK; i++) out[2 * i] = out[2 * i + 1] = this.rolling ? this.frame + i : 0
        if (this.rolling) this.frame += BLOCK
        return BLOCK
      },
    }
    return new Proxy(known, { get: (t, name: keyof Exports) => t[name] ?? note(name) }) as Exports
  }
}

let engine: FakeEngine
let said: FromWorker[]
let send: (m: ToWorker) => void
let shared: Record<'head' | 'ring' | 'stamps' | 'values', SharedArrayBuffer>
let head: Int32Array<SharedArrayBuffer>
let ring: Float32Array
let stamps: Float64Array

const heard = (say: FromWorker['say']) => said.filter((m) => m.say === say)
const queued = () => Atomics.load(head, HEAD.write) - Atomics.load(head, HEAD.read)

const closed = vi.fn()

beforeEach(async () => {
  closed.mockClear()
  vi.resetModules()
  engine = new FakeEngine()
  said = []
  shared = {
    head: new SharedArrayBuffer(64),
    ring: new SharedArrayBuffer(RING_FRAMES * 2 * 4),
    stamps: new SharedArrayBuffer(SLOTS * STAMP.size * 8),
    values: new SharedArrayBuffer(SLOTS * SLOT_VALUES * 4),
  }
  head = new Int32Array(shared.head)
  ring = new Float32Array(shared.ring)
  stamps = new Float64Array(shared.stamps)
  vi.stubGlobal('onmessage', null)
  vi.stubGlobal('close', closed)
  vi.stubGlobal('postMessage', (m: FromWorker) => said.push(m))
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(new Float32Array(8).buffer)))
  vi.stubGlobal(
    'Go',
    class {
      importObject = {}
      exit: (code: number) => void = () => undefined
      run = () => new Promise<void>((over) => (engine.end = over))
    },
  )
  vi.spyOn(WebAssembly, 'compileStreaming').mockResolvedValue(program)
  vi.spyOn(WebAssembly, 'instantiate').mockImplementation(() =>
    Promise.resolve({ exports: engine.exports() } as never),
  )
  await import('./worker')
  send = (m) =>
    (globalThis as unknown as { onmessage: (e: { data: ToWorker }) => void }).onmessage({ data: m })
  send({ do: 'start', shared, program: '/engine.wasm' } as unknown as ToWorker)
  await new Promise((r) => setTimeout(r)) // the engine is there
})

afterEach(async () => {
  engine.end() // nothing of this worker is to be heard in the next
  await new Promise((r) => setTimeout(r, 30)) // longer than it sleeps
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
})

const open = (name = 'Low Tide') =>
  send({ do: 'document', json: JSON.stringify({ name, sampleRate: 48000 }), fresh: true })

/** Takes frames out of the ring, as ears do. */
function listen(frames: number): number[] {
  const from = Atomics.load(head, HEAD.read)
  const out = Array.from({ length: frames }, (_, i) => ring[2 * ((from + i) % RING_FRAMES)]!)
  Atomics.store(head, HEAD.read, from + frames)
  Atomics.notify(head, HEAD.read)
  return out
}

test('a document is given to the engine, and what follows from it is said', async () => {
  open()
  expect(engine.calls).toContain('document Low Tide')
  expect(said.map((m) => m.say)).toEqual(expect.arrayContaining(['timeline', 'layout']))
  await vi.waitFor(() => expect(heard('soundings')).toHaveLength(1), PATIENT)
  said.length = 0
  open()
  expect(heard('timeline'), 'what is as it was is not said again').toEqual([])
})

test('a document that the engine refuses is said in its words', () => {
  engine.refuses = 'there is no effect "sparkle"'
  open()
  expect(heard('trouble')).toEqual([
    { say: 'trouble', text: 'The sound engine refused the project: there is no effect "sparkle"' },
  ])
})

test('a revision is read, prepared and heard, before what is asked after it; one that is refused is only read', async () => {
  open()
  send({ do: 'play' })
  await vi.waitFor(() => expect(queued()).toBeGreaterThan(0), PATIENT)
  engine.calls.length = 0
  send({ do: 'revision', json: '{"rows":1}' })
  send({ do: 'ask', ticket: 1, name: 'draw', of: '' })
  await vi.waitFor(() => {
    listen(Math.min(queued(), BLOCK))
    expect(engine.calls.filter((c) => /revision|prepare|adopt|ask/.test(c))).toEqual([
      'revision {"rows":1}',
      'prepare',
      'adopt',
      'ask draw',
    ])
  }, PATIENT)
  engine.refuses = 'there is no effect "sparkle"'
  engine.calls.length = said.length = 0
  send({ do: 'revision', json: '{"rows":2}' })
  send({ do: 'move', owner: 'a', name: 'fader', value: -3 }) // before an order all revisions are taken
  expect(engine.calls.filter((c) => /revision|prepare|adopt/.test(c))).toEqual(['revision {"rows":2}'])
  expect(heard('trouble')).toEqual([
    { say: 'trouble', text: 'The sound engine refused the project: there is no effect "sparkle"' },
  ])
})

test('what is tried is prepared and heard as a revision is, and told under its ticket', async () => {
  open()
  engine.calls.length = 0
  send({ do: 'try', json: '[]', ticket: 3 })
  expect(engine.calls.filter((c) => /try|prepare|adopt/.test(c))).toEqual(['try 2', 'prepare', 'adopt'])
  expect(heard('answer')).toMatchObject([{ ticket: 3, trouble: '' }])
})

test('questions are answered under their tickets, or why they cannot be', async () => {
  open()
  send({ do: 'ask', ticket: 7, name: 'draw', of: '{"id":"s"}' })
  send({ do: 'ask', ticket: 8, name: 'nonsense', of: '{}' } as ToWorker)
  await vi.waitFor(() => expect(heard('answer')).toHaveLength(2), PATIENT)
  expect(heard('answer')).toEqual([
    { say: 'answer', ticket: 7, json: '{"asked":"{\\"id\\":\\"s\\"}"}', trouble: '' },
    { say: 'answer', ticket: 8, json: '', trouble: 'nobody can answer "nonsense"' },
  ])
})

test('Play goes before questions that still wait', async () => {
  open()
  for (let ticket = 0; ticket < 20; ticket++) send({ do: 'ask', ticket, name: 'draw', of: '{}' })
  send({ do: 'play' })
  await vi.waitFor(() => expect(heard('answer')).toHaveLength(20), PATIENT)
  await vi.waitFor(() => expect(engine.calls).toContain('play'), PATIENT)
  expect(engine.calls.indexOf('play')).toBeLessThan(engine.calls.lastIndexOf('ask draw'))
})

test('the song runs through the ring without a gap, as far ahead as was asked for', async () => {
  open()
  send({ do: 'buffer', frames: 1000 })
  send({ do: 'play' })
  await vi.waitFor(() => expect(Atomics.load(head, HEAD.running)).toBe(1), PATIENT)
  expect(queued()).toBeGreaterThanOrEqual(1000)
  const all: number[] = []
  while (all.length < 5 * RING_FRAMES) {
    await vi.waitFor(() => expect(queued()).toBeGreaterThanOrEqual(500), { interval: 1, ...PATIENT })
    all.push(...listen(500))
  }
  expect(
    all.every((v, i) => v === i),
    'also where the ring turns',
  ).toBe(true)
  await vi.waitFor(() => expect(queued()).toBeGreaterThanOrEqual(1000), PATIENT)
  expect(queued(), 'no further than a block, once it has played for a while').toBeLessThan(1000 + BLOCK)
  expect(heard('transport').at(-1)).toMatchObject({ state: STATE.playing })
})

test('stamps say which frame of the song a place in the ring is', async () => {
  open()
  send({ do: 'play' })
  await vi.waitFor(() => expect(queued()).toBeGreaterThan(4000), PATIENT)
  let newest = -1
  for (let s = 0; s < SLOTS; s++) {
    const at = s * STAMP.size
    if (!stamps[at + STAMP.turn]) continue
    expect(stamps[at + STAMP.song]).toBe(stamps[at + STAMP.write])
    newest = Math.max(newest, stamps[at + STAMP.song]!)
  }
  expect(newest).toBeGreaterThan(2000)
})

test('where audio is missing the song waits, says so, and goes on with the frame it stood at', async () => {
  open()
  send({ do: 'buffer', frames: 1000 })
  send({ do: 'play' })
  await vi.waitFor(() => expect(Atomics.load(head, HEAD.running)).toBe(1), PATIENT)
  let arrive: (r: Response) => void = () => undefined
  vi.stubGlobal('fetch', () => new Promise<Response>((r) => (arrive = r)))
  engine.missing = 1
  const before = listen(queued())
  await vi.waitFor(() => expect(heard('waiting')).toEqual([{ say: 'waiting', pages: 1 }]), PATIENT)
  expect(Atomics.load(head, HEAD.running), 'nothing stale and no silence is played').toBe(0)
  arrive(new Response(new Float32Array(8).buffer))
  await vi.waitFor(() => expect(queued()).toBeGreaterThan(0), PATIENT)
  expect(listen(1)[0]).toBe(before.at(-1)! + 1)
})

test('while Play waits for its audio the song can be moved, and is not said to be stopped', async () => {
  open()
  const told = () => said.flatMap((m) => (m.say === 'transport' ? [m.state] : []))
  let arrive: (r: Response) => void = () => undefined
  vi.stubGlobal('fetch', () => new Promise<Response>((r) => (arrive = r)))
  engine.missing = 1
  said.length = 0
  send({ do: 'play' })
  send({ do: 'locate', frame: 4800, grid: 0 })
  expect(told()).toEqual([STATE.waiting])
  arrive(new Response(new Float32Array(8).buffer))
  await vi.waitFor(() => expect(heard('transport').at(-1)).toMatchObject({ state: STATE.playing }), PATIENT)
  expect(told()).not.toContain(STATE.stopped)
})

test('stopped, what was queued is thrown away and the engine rests', async () => {
  open()
  send({ do: 'play' })
  await vi.waitFor(() => expect(Atomics.load(head, HEAD.running)).toBe(1), PATIENT)
  const epoch = Atomics.load(head, HEAD.epoch)
  send({ do: 'stop' })
  expect(Atomics.load(head, HEAD.epoch)).toBe(epoch + 1)
  await vi.waitFor(() => expect(Atomics.load(head, HEAD.running)).toBe(0), PATIENT)
  expect(heard('transport').at(-1)).toMatchObject({ state: STATE.stopped })
  let made = -1
  await vi.waitFor(() => {
    const before = made
    made = Atomics.load(head, HEAD.write)
    expect(made, 'it makes nothing more').toBe(before)
  }, PATIENT)
})

test('an engine that ends says so once, lets nothing stale play, and answers nothing more', async () => {
  open()
  send({ do: 'play' })
  await vi.waitFor(() => expect(Atomics.load(head, HEAD.running)).toBe(1), PATIENT)
  engine.end()
  await vi.waitFor(() => expect(heard('stopped')).toHaveLength(1), PATIENT)
  expect(Atomics.load(head, HEAD.running)).toBe(0)
  expect(closed, 'nothing that waits goes on').toHaveBeenCalledOnce()
  const calls = engine.calls.length
  send({ do: 'ask', ticket: 9, name: 'draw', of: '{}' })
  send({ do: 'locate', frame: 0, grid: 0 })
  expect(engine.calls).toHaveLength(calls)
  expect(heard('answer')).toEqual([])
})

test('what comes before the engine is there waits for it', async () => {
  vi.resetModules()
  said.length = 0
  let there: () => void = () => undefined
  vi.spyOn(WebAssembly, 'compileStreaming').mockImplementation(
    () => new Promise((r) => (there = () => r(program))),
  )
  await import('./worker')
  send({ do: 'start', shared, program: '/engine.wasm' } as unknown as ToWorker)
  open('Early')
  send({ do: 'locate', frame: 100, grid: 0 })
  expect(engine.calls).toEqual([])
  there()
  await vi.waitFor(() => expect(engine.calls).toEqual(['document Early', 'locate 100 0']), PATIENT)
})

test('what was compiled is said, and a worker that is given it compiles nothing', async () => {
  expect(heard('compiled')).toEqual([{ say: 'compiled', program }])
  vi.resetModules()
  said.length = 0
  const compiling = vi.spyOn(WebAssembly, 'compileStreaming').mockClear()
  await import('./worker')
  send({ do: 'start', shared, program } as unknown as ToWorker)
  open('Next')
  await vi.waitFor(() => expect(engine.calls).toContain('document Next'), PATIENT)
  expect(compiling).not.toHaveBeenCalled()
  expect(heard('compiled')).toEqual([])
})

test('that no output takes the sound may be said before the engine is there', async () => {
  vi.resetModules()
  let there: () => void = () => undefined
  vi.spyOn(WebAssembly, 'compileStreaming').mockImplementation(
    () => new Promise((r) => (there = () => r(program))),
  )
  await import('./worker')
  send({ do: 'start', shared, program: '/engine.wasm' } as unknown as ToWorker)
  send({ do: 'drain', on: true })
  there()
  open()
  send({ do: 'play' })
  await vi.waitFor(() => expect(Atomics.load(head, HEAD.read)).toBeGreaterThan(0), PATIENT)
})

test('before a document is there nothing is asked of the engine', () => {
  send({ do: 'play' })
  send({ do: 'move', owner: 'a', name: 'fader', value: -3 })
  expect(engine.calls).toEqual([])
  open()
  send({ do: 'move', owner: 'a', name: 'fader', value: -3 })
  expect(engine.calls.at(-1)).toMatch(/^move/)
})
