import { vi } from 'vitest'
import type { ChangeMessage, Message, Project } from '../api/types'

/* A server and an engine that only keep what was asked of them, for tests of what stands between the two. */

/** A document with one row on the main output. */
export const document = (): Project =>
  ({
    version: 1,
    id: 'p',
    name: 'Low Tide',
    sampleRate: 48000,
    tempo: [{ tick: 0, bpm: 100 }],
    meter: [{ tick: 0, beats: 4, unit: 4 }],
    sections: [],
    lines: [],
    audio: [],
    channels: [row('a', 'Marimba', 'track'), row('main', 'Main', 'main')],
  }) as Project

const row = (id: string, name: string, kind: string) => ({
  id,
  kind,
  name,
  tint: 0,
  stereo: true,
  hidden: false,
  chain: { bypass: false, nodes: [] },
  trials: [],
  letter: 'A',
  waterline: '',
  fader: 0,
  pan: 0,
  mute: false,
  mutePre: false,
  soloSafe: false,
  output: kind === 'main' ? '' : 'main',
  sends: [],
  clips: [],
})

export type Asked = { method: string; path: string; query: URLSearchParams; body: unknown }

/** Answers requests by method and path; what has no answer is refused. */
export class FakeServer {
  asked: Asked[] = []
  answers: Record<string, unknown> = {}

  constructor() {
    this.answers = {
      'GET /api/projects/p': { revision: 1, project: document() },
      'GET /api/effects': [],
      'GET /api/params': {},
      'GET /api/inputs': [],
      'GET /api/me': { id: 'me', name: 'Ada' },
      'GET /api/projects/p/prints': [],
      'GET /api/projects/p/changes': { gap: false, changes: [] },
    }
    vi.stubGlobal('fetch', async (r: Request) => {
      const url = new URL(r.url)
      const body = bodyOf(await r.text())
      this.asked.push({ method: r.method, path: url.pathname, query: url.searchParams, body })
      const a = this.answers[`${r.method} ${url.pathname}`]
      if (a === undefined) return json({ detail: 'There is no such thing here.' }, 404)
      return a instanceof Response ? a.clone() : json(a)
    })
  }

  last(method: string, path: string): Asked | undefined {
    return this.asked.findLast((x) => x.method === method && x.path === path)
  }

  count(method: string, path: string): number {
    return this.asked.filter((x) => x.method === method && x.path === path).length
  }
}

/** What was sent, where it can be read. */
function bodyOf(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return text || undefined
  }
}

export const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })

/** The socket that was opened last: what the server would send comes by hand. */
export class FakeSocket {
  send() {} // where this window is
  static last: FakeSocket
  onopen: () => void = () => undefined
  onmessage: (e: { data: string }) => void = () => undefined
  onclose: () => void = () => undefined
  closed = false
  reconnected = 0

  constructor(readonly url: string) {
    FakeSocket.last = this
  }
  close() {
    this.closed = true
  }
  reconnect() {
    this.reconnected++
  }
  tell(m: Message | { change: Partial<ChangeMessage> }) {
    this.onmessage({ data: JSON.stringify(m) })
  }
}

/** A revision as the server tells of it. */
export const revision = (n: number, patch: object[], hash = ''): { change: ChangeMessage } => ({
  change: {
    revision: n,
    author: { id: 'you', name: 'Bo' },
    label: `Change ${n}`,
    kind: 'do',
    patch: patch as never,
    time: '2026-11-28T04:16:00Z',
    hash,
  },
})
