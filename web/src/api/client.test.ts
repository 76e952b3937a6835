import { afterEach, expect, test, vi } from 'vitest'
import { answer, api, Cancelled, download, fileAt, onNameless, Refused, takerAt, waiting } from './client'

const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })

/** Answers requests in turn, and keeps what was asked. */
function server(...answers: (Response | Error)[]) {
  const asked: Request[] = []
  vi.stubGlobal('fetch', (r: Request) => {
    asked.push(r)
    const a = answers.shift() ?? new Error('nothing more is answered')
    return a instanceof Error ? Promise.reject(a) : Promise.resolve(a)
  })
  return asked
}

afterEach(() => {
  vi.unstubAllGlobals()
  onNameless(() => Promise.resolve(false))
})

test('an answer is that of the operation, whose pieces of the path are filled in', async () => {
  const asked = server(json({ id: 'p' }))
  const p = await answer(api.POST('/api/projects/{id}/copies', { params: { path: { id: 'a b' } } }))
  expect(p.id).toBe('p')
  expect(new URL(asked[0]!.url).pathname).toBe('/api/projects/a%20b/copies')
})

test('a refusal says what the server said, and without words its status', async () => {
  server(json({ detail: 'The name is taken.' }, 422), new Response('<html>', { status: 502 }))
  await expect(answer(api.GET('/api/projects'))).rejects.toThrow('The name is taken.')
  await expect(answer(api.GET('/api/projects'))).rejects.toThrow('The server answered 502.')
})

test('a server that is not there is said to be out of reach', async () => {
  server(new TypeError('fetch failed'))
  await expect(answer(api.GET('/api/me'))).rejects.toThrow(/cannot be reached/)
})

test('what lacks a name goes through when it has been given, with the same body', async () => {
  const asked = server(json({ detail: 'Say who you are.' }, 401), json({ revision: 7, label: 'Rename' }))
  onNameless(() => Promise.resolve(true))
  const body = { label: 'Rename', changes: [{ type: 'project.set' as const, do: { name: 'Low Tide' } }] }
  const r = await answer(api.POST('/api/projects/{id}/changes', { params: { path: { id: 'p' } }, body }))
  expect(r.revision).toBe(7)
  expect(asked).toHaveLength(2)
  expect(await asked[1]!.json()).toEqual(body)
})

test('what lacks a name is refused when none is given', async () => {
  const asked = server(json({ detail: 'Say who you are.' }, 401))
  const e: unknown = await answer(
    api.POST('/api/presets/{preset}/restore', { params: { path: { preset: 'x' } } }),
  ).catch((x: unknown) => x)
  expect(e).toBeInstanceOf(Refused)
  expect((e as Refused).status).toBe(401)
  expect(asked).toHaveLength(1)
})

test('what is waited for carries its name and can be cancelled', async () => {
  const end = new AbortController()
  const asked = server(new Error('aborted'))
  end.abort()
  const asking = answer(
    api.GET('/api/projects/{id}', {
      params: { path: { id: 'p' } },
      ...waiting({ signal: end.signal, work: 'w1' }),
    }),
  )
  await expect(asking).rejects.toBeInstanceOf(Cancelled)
  expect(asked[0]?.headers.get('X-Work')).toBe('w1')
})

test('files have an address, with names in it that need care', () => {
  expect(takerAt('/api/projects/{id}/audio', { path: { id: 'p' }, query: { name: 'a&b 1.wav' } })).toBe(
    '/api/projects/p/audio?name=a%26b%201.wav',
  )
  expect(fileAt('/api/prints/{print}/file', { path: { print: 'x1' } })).toBe('/api/prints/x1/file')
})

test('a file that breaks off is not saved', async () => {
  const broken = new Response(new ReadableStream({ start: (c) => c.error(new Error('cut')) }))
  server(broken)
  const saved = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => undefined)
  await expect(download('/api/prints/x/file')).rejects.toThrow(/nothing was saved/)
  expect(saved).not.toHaveBeenCalled()
  saved.mockRestore()
})
