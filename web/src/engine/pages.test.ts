import { afterEach, expect, test, vi } from 'vitest'
import { Pages } from './pages'

afterEach(() => vi.unstubAllGlobals())

const page = (n: number) => ({ hash: 'abc', page: n })

function pages(answer: (url: string) => Response | Promise<Response>) {
  const asked: string[] = []
  const kept: string[] = []
  const said: string[] = []
  vi.stubGlobal('fetch', async (url: string) => {
    asked.push(url)
    return answer(url)
  })
  const keep = (m: { page: number }, bytes: Uint8Array, channels: number) =>
    void kept.push(`${m.page}: ${bytes.length} bytes of ${channels}`)
  const made = new Pages(keep, (text) => void said.push(text), 1)
  made.project = 'song'
  return { asked, kept, said, pages: made }
}

const sound = () => new Response(new Uint8Array(8), { headers: { 'X-Channels': '2' } })

test('a page is asked for once, however often it is wanted meanwhile', async () => {
  const { asked, kept, pages: p } = pages(sound)
  await Promise.all([p.fetch([page(1), page(2)]), p.fetch([page(2), page(1)])])
  expect(asked).toEqual(['/api/projects/song/audio/abc/pcm/1', '/api/projects/song/audio/abc/pcm/2'])
  expect(kept).toEqual(['1: 8 bytes of 2', '2: 8 bytes of 2'])
})

test('what fails is tried again, four times in all, then it is lost until it is forgotten', async () => {
  let works = false
  const { asked, kept, said, pages: p } = pages(() => (works ? sound() : new Response('', { status: 503 })))
  await p.fetch([page(7)])
  expect(asked).toHaveLength(4)
  expect(p.lost).toBe(1)
  expect(said[0]).toContain('the server answered 503')
  await p.fetch([page(7)])
  expect(asked).toHaveLength(4)
  works = true
  p.forget()
  await p.fetch([page(7)])
  expect(kept).toEqual(['7: 8 bytes of 2'])
  expect(p.lost).toBe(0)
})

test('what is lost is tried again after a while: playback that waits for it goes on by itself', async () => {
  const {
    asked,
    kept,
    pages: p,
  } = pages(() => (asked.length > 4 ? sound() : new Response('', { status: 503 })))
  let now = 1000
  vi.spyOn(performance, 'now').mockImplementation(() => now)
  await p.fetch([page(7)])
  expect(p.lost).toBe(1)
  now += 2999
  await p.fetch([page(7)])
  expect(kept).toEqual([])
  now += 1
  await p.fetch([page(7)])
  expect(kept).toEqual(['7: 8 bytes of 2'])
  expect(p.lost).toBe(0)
  vi.restoreAllMocks()
})

test('a connection that comes back is enough', async () => {
  let attempt = 0
  const {
    kept,
    said,
    pages: p,
  } = pages(() => {
    if (++attempt < 3) throw new TypeError('Failed to fetch')
    return sound()
  })
  await p.fetch([page(0)])
  expect(kept).toHaveLength(1)
  expect(said).toEqual([])
})
