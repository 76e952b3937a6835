import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { hashOf } from '../document/hash'
import { document, FakeServer, FakeSocket, json, revision } from '../testing/server'
import { change, takeBack } from './changes'
import { move } from './hand'
import { close, open, reconnect } from './live'
import { theEngine } from './sound'
import { useSession } from './store'

vi.mock('partysocket', async () => ({ WebSocket: (await import('../testing/server')).FakeSocket }))
vi.mock('../engine/engine', () => ({
  Engine: class {
    given: { name: string; fresh: boolean }[] = []
    moved: [string, string, number][] = []
    closed = false
    watched = ''
    prepare = () => undefined
    document = (p: { name: string }, fresh: boolean) => {
      this.given.push({ name: p.name, fresh })
    }
    move = (owner: string, name: string, value: number) => this.moved.push([owner, name, value])
    heard = () => ({ song: 1234.4 })
    hear() {}
    loop() {}
    atEnd() {}
    click() {}
    buffer() {}
    makeReady() {}
    rms() {}
    told: string[][] = []
    worked = (keys: string[]) => this.told.push(keys)
    close() {
      this.closed = true
    }
  },
}))

type Kept = {
  given: { name: string; fresh: boolean }[]
  moved: [string, string, number][]
  told: string[][]
  closed: boolean
}
const engine = () => theEngine() as unknown as Kept
const now = useSession.getState
const rename = (name: string) => [{ op: 'replace', path: '/name', value: name }]
const settled = () => vi.advanceTimersByTimeAsync(0)
const says = () => now().notices.map((n) => n.text)

let server: FakeServer

beforeEach(async () => {
  vi.useFakeTimers()
  server = new FakeServer()
  await open('p')
  FakeSocket.last.onopen()
  await settled()
})

afterEach(() => {
  close()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

test('the engine is told what has been worked out, each thing once, and a new engine all of it', async () => {
  const work = (key: string, state: string) => ({ key, clips: ['c'], state, progress: 1, frames: 1, lead: 0 })
  const hear = (...worked: object[]) => FakeSocket.last.onmessage({ data: JSON.stringify({ worked }) })
  hear(work('a', 'running'))
  expect(now().worked.map((w) => w.state)).toEqual(['running'])
  expect(engine().told).toEqual([])
  hear(work('a', 'done'))
  hear(work('a', 'done'), work('b', 'waiting'))
  expect(engine().told).toEqual([['a']])
  hear(work('a', 'done'), work('b', 'done'))
  expect(engine().told.at(-1)).toEqual(['a', 'b'])
  // whoever comes back asks
  server.answers['GET /api/projects/p/works'] = [work('c', 'done')]
  FakeSocket.last.onopen()
  await settled()
  expect(engine().told.at(-1)).toEqual(['c'])
})

test('a project is opened, given to a new engine and listened to', () => {
  expect(now().project?.name).toBe('Low Tide')
  expect(now().me?.name).toBe('Ada')
  expect(now().connected).toBe(true)
  expect(engine().given).toEqual([{ name: 'Low Tide', fresh: true }])
  expect(FakeSocket.last.url).toMatch(/\/api\/projects\/p\/live$/)
  expect(server.count('GET', '/api/projects/p/changes'), 'what was missed while opening').toBe(1)
})

test('a revision is patched in and heard; the document before it is left as it is', () => {
  const before = now().project
  FakeSocket.last.tell(revision(2, rename('High Tide')))
  expect(now().project?.name).toBe('High Tide')
  expect(before?.name).toBe('Low Tide')
  expect(now().revision).toBe(2)
  expect(now().lastChange?.author.name).toBe('Bo')
  expect(engine().given.at(-1)).toEqual({ name: 'High Tide', fresh: false })
})

test('points of lines alone leave the shape of the document as it was', () => {
  FakeSocket.last.tell(
    revision(2, [{ op: 'add', path: '/lines/-', value: { owner: 'a', name: 'fader', points: [] } }]),
  )
  expect(now().shape).toBe(2)
  FakeSocket.last.tell(
    revision(3, [
      {
        op: 'replace',
        path: '/lines/0',
        value: { owner: 'a', name: 'fader', points: [{ tick: 0, value: -3, shape: 'ramp' }] },
      },
    ]),
  )
  expect(now().revision).toBe(3)
  expect(now().shape).toBe(2)
})

test('a revision that comes too early is not taken: what lies between is asked for', async () => {
  server.answers['GET /api/projects/p/changes'] = {
    gap: false,
    changes: [revision(2, rename('Two')).change, revision(3, rename('Three')).change],
  }
  FakeSocket.last.tell(revision(3, rename('Three')))
  expect(now().revision).toBe(1)
  await settled()
  expect(now().revision).toBe(3)
  expect(now().project?.name).toBe('Three')
  expect(server.last('GET', '/api/projects/p/changes')?.query.get('since')).toBe('1')
  FakeSocket.last.tell(revision(2, rename('Late')))
  expect(now().project?.name, 'an old one changes nothing').toBe('Three')
})

test('where too much was missed the document is taken whole', async () => {
  server.answers['GET /api/projects/p/changes'] = { gap: true, changes: [] }
  server.answers['GET /api/projects/p'] = { revision: 900, project: { ...document(), name: 'Much later' } }
  FakeSocket.last.tell(revision(7, rename('Seven')))
  await settled()
  expect(now().revision).toBe(900)
  expect(now().project?.name).toBe('Much later')
  expect(engine().given.at(-1)).toEqual({ name: 'Much later', fresh: false })
})

test('a document that is equal by its hash stays; another is taken anew, and the server told', async () => {
  const next = { ...document(), name: 'High Tide' }
  FakeSocket.last.tell(revision(2, rename('High Tide'), (await hashOf(next))!))
  await vi.advanceTimersByTimeAsync(600)
  await vi.waitFor(() => expect(server.count('GET', '/api/projects/p')).toBe(1))

  const warned = vi.spyOn(console, 'warn').mockImplementation(() => undefined)
  server.answers['GET /api/projects/p'] = { revision: 3, project: { ...document(), name: 'As it is' } }
  FakeSocket.last.tell(revision(3, rename('As this window has it'), 'another'))
  await vi.advanceTimersByTimeAsync(600)
  await vi.waitFor(() => expect(now().project?.name).toBe('As it is'))
  expect(server.last('GET', '/api/projects/p')?.query.get('differs')).toBe('3')
  expect(warned).toHaveBeenCalledOnce()
  warned.mockRestore()
})

test('a change is asked for and done when its revision has come', async () => {
  server.answers['POST /api/projects/p/changes'] = { revision: 2, label: 'Rename' }
  let done: boolean | null = null
  void change('Rename', { type: 'project.set', do: { name: 'High Tide' } }).then((d) => (done = d))
  await settled()
  expect(done, 'it is answered, and has not yet come').toBeNull()
  expect(server.last('POST', '/api/projects/p/changes')?.body).toMatchObject({
    label: 'Rename',
    changes: [{ type: 'project.set', do: { name: 'High Tide' } }],
  })
  FakeSocket.last.tell(revision(2, rename('High Tide')))
  await settled()
  expect(done).toBe(true)
})

test('a change whose revision does not come over the connection is asked for after a while', async () => {
  server.answers['POST /api/projects/p/changes'] = { revision: 2, label: 'Rename' }
  server.answers['GET /api/projects/p/changes'] = {
    gap: false,
    changes: [revision(2, rename('High Tide')).change],
  }
  const done = change('Rename', { type: 'project.set', do: { name: 'High Tide' } })
  await vi.advanceTimersByTimeAsync(250)
  expect(await done).toBe(true)
  expect(now().project?.name).toBe('High Tide')
})

test('what is done one after the other is asked for in that order', async () => {
  let first: (r: Response) => void = () => undefined
  const asked: string[] = []
  vi.stubGlobal('fetch', (r: Request) => {
    asked.push(new URL(r.url).pathname.split('/').at(-1)!)
    return asked.length === 1
      ? new Promise((go) => (first = go))
      : Promise.resolve(json({ revision: 1, label: '' }))
  })
  const undone = takeBack('undo')
  const changed = change('Rename', { type: 'project.set', do: { name: 'High Tide' } })
  await settled()
  expect(asked).toEqual(['undo'])
  first(json({ detail: 'There is nothing to undo.' }, 422))
  await Promise.all([undone, changed])
  expect(asked, 'also after a refusal').toEqual(['undo', 'changes'])
})

test('a refusal is shown in its own words, and nothing changes', async () => {
  server.answers['POST /api/projects/p/changes'] = json(
    { detail: 'The signal would feed itself: A > B > A.' },
    422,
  )
  expect(await change('Send', { type: 'send.rows', do: { to: 'a', channels: ['main'] } })).toBe(false)
  expect(says()).toContain('The signal would feed itself: A > B > A.')
  expect(now().revision).toBe(1)
})

test('undo says what it took back, and what it passed over and why', async () => {
  server.answers['POST /api/projects/p/undo'] = {
    revision: 2,
    label: 'Mute Marimba',
    passed: ['Bo has built on it since (Print)'],
  }
  const asked = takeBack('undo')
  await settled()
  FakeSocket.last.tell(revision(2, []))
  await asked
  expect(says()).toEqual(['Bo has built on it since (Print)', 'Undone: Mute Marimba'])
})

test('a hand is heard at once and told to the server once, when it rests', async () => {
  server.answers['POST /api/projects/p/changes'] = { revision: 2, label: 'Level' }
  for (const v of [-1, -2, -3]) move('a', 'fader', v, 'Level of Marimba')
  expect(engine().moved).toEqual([
    ['a', 'fader', -1],
    ['a', 'fader', -2],
    ['a', 'fader', -3],
  ])
  expect(now().moving['a fader']).toBe(-3)
  expect(server.count('POST', '/api/projects/p/changes')).toBe(0)
  await vi.advanceTimersByTimeAsync(260)
  expect(server.count('POST', '/api/projects/p/changes')).toBe(1)
  expect(server.last('POST', '/api/projects/p/changes')?.body).toMatchObject({
    changes: [{ type: 'param.set', do: { owner: 'a', name: 'fader', value: -3 } }],
  })
  FakeSocket.last.tell(revision(2, [{ op: 'replace', path: '/channels/0/fader', value: -3 }]))
  await settled()
  expect(now().moving).toEqual({})
})

test('what a hand has moved goes before what is done next, so that undo takes that back', async () => {
  server.answers['POST /api/projects/p/changes'] = { revision: 1, label: 'Level' }
  server.answers['POST /api/projects/p/undo'] = { revision: 1, label: 'Mute' }
  move('a', 'fader', -3, 'Level of Marimba')
  void change('Mute Marimba', { type: 'channel.set', do: { id: 'a', mute: true } })
  await settled()
  const sent = () =>
    server.asked
      .filter((r) => r.method === 'POST' && r.path === '/api/projects/p/changes')
      .map((r) => (r.body as { changes: { type: string }[] }).changes[0]!.type)
  expect(sent()).toEqual(['param.set', 'channel.set'])
  move('a', 'fader', -4, 'Level of Marimba')
  void takeBack('undo')
  await settled()
  expect(sent()).toEqual(['param.set', 'channel.set', 'param.set'])
  expect(server.count('POST', '/api/projects/p/undo')).toBe(1)
  await vi.advanceTimersByTimeAsync(260)
  expect(sent(), 'each is told once').toHaveLength(3)
})

test('a hand on what a line moves puts a point where the song is heard', async () => {
  const points = [{ tick: 0, value: -6, shape: 'ramp' }]
  FakeSocket.last.tell(
    revision(2, [{ op: 'add', path: '/lines/-', value: { owner: 'a', name: 'fader', points } }]),
  )
  server.answers['POST /api/projects/p/changes'] = { revision: 2, label: 'Point' }
  move('a', 'fader', -9, 'Level of Marimba', true)
  await vi.advanceTimersByTimeAsync(10)
  expect(server.last('POST', '/api/projects/p/changes')?.body).toMatchObject({
    changes: [{ type: 'line.put', do: { owner: 'a', name: 'fader', from: 1234, to: 1234, value: -9 } }],
  })
  expect(says()).toContain('Level of Marimba follows its line: a point is at the playhead now.')
})

test('the connection may go and come: what was missed is asked for', async () => {
  FakeSocket.last.onclose()
  expect(now().connected).toBe(false)
  server.answers['GET /api/projects/p/changes'] = {
    gap: false,
    changes: [revision(2, rename('Meanwhile')).change],
  }
  FakeSocket.last.onopen()
  await settled()
  expect(now().connected).toBe(true)
  expect(now().project?.name).toBe('Meanwhile')
  reconnect()
  expect(FakeSocket.last.reconnected).toBe(1)
})

test('a project that is left is silent and heard no more', async () => {
  const old = FakeSocket.last
  const was = engine()
  close()
  expect(was.closed).toBe(true)
  expect(old.closed).toBe(true)
  expect(now().project).toBeNull()
  old.onclose()
  expect(now().connected).toBe(false)
  old.tell(revision(2, rename('From afar')))
  await settled()
  expect(now().project).toBeNull()
})

test('a full disk is said until a change goes through again', async () => {
  server.answers['POST /api/projects/p/changes'] = json({ detail: 'The disk is full.' }, 507)
  expect(await change('Mute', { type: 'channel.set', do: { id: 'x', mute: true } })).toBe(false)
  expect(now().full).toBe(true)
  expect(says()).toContain('The disk is full.')
  server.answers['POST /api/projects/p/changes'] = { revision: 1, label: 'Mute', passed: null }
  expect(await change('Mute', { type: 'channel.set', do: { id: 'x', mute: true } })).toBe(true)
  expect(now().full).toBe(false)
})

test('news of prints, of imports and of who is there are kept', () => {
  const print = { id: 'x', state: 'running', progress: 0.2 } as never
  FakeSocket.last.tell({ print })
  FakeSocket.last.tell({ print: { id: 'x', state: 'done', progress: 1 } as never })
  expect(now().prints.map((p) => [p.id, p.state])).toEqual([['x', 'done']])
  expect(now().news).toEqual(['x'])
  FakeSocket.last.tell({ presence: [{ window: 'w', person: { id: 'you', name: 'Bo' }, at: '', stage: '' }] })
  expect(now().people).toHaveLength(1)
  FakeSocket.last.tell({ import: { name: 'a.wav', progress: 0.5 } })
  expect(now().importing).toEqual({ name: 'a.wav', progress: 0.5 })
})

test('what somebody else has in hand is changed once they were asked', async () => {
  server.answers['POST /api/projects/p/changes'] = json(
    { detail: 'Marimba is in Bo’s hand: ask first.' },
    409,
  )
  expect(await change('Mute', { type: 'channel.set', do: { id: 'a', mute: true } })).toBe(false)
  const asking = now().notices.at(-1)!
  expect(asking.text).toContain('ask first')
  server.answers['POST /api/projects/p/changes'] = { revision: 1, label: 'Mute' }
  asking.action!.run()
  await settled()
  expect(server.last('POST', '/api/projects/p/changes')!.body).toMatchObject({ label: 'Mute', anyway: true })
})

test('who may no longer be here is told why, and hears nothing more', () => {
  FakeSocket.last.tell({ gone: 'Ada has taken you out' })
  expect(now().gone).toBe('Ada has taken you out')
  expect(FakeSocket.last.closed).toBe(true)
})

test('what one may is learnt anew when somebody has changed it', async () => {
  server.answers['GET /api/projects/p/crew'] = {
    accounts: true,
    role: 'listener',
    exports: false,
    people: [],
    links: [],
  }
  FakeSocket.last.tell({ crew: true })
  await settled()
  expect([now().role, now().exports, now().crew]).toEqual(['listener', false, 1])
})
