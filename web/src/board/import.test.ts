import { beforeEach, expect, test, vi } from 'vitest'
import { session } from '../session/store'
import { view } from '../session/view'
import { clip, open } from '../testing/screen'
import { FakeServer, json } from '../testing/server'
import { importFiles } from './import'

const answered = vi.hoisted(() => ({ with: {} as object }))

vi.mock('../api/client', async (real) => ({
  ...(await real<typeof import('../api/client')>()),
  upload: () => Promise.resolve(answered.with),
}))

let server: FakeServer

beforeEach(() => {
  server = new FakeServer()
  open((p) => {
    p.sampleRate = 48000
    p.channels[0]!.id = 'r'
    p.channels[0]!.name = 'Horn'
    p.channels[0]!.clips = [clip('c')]
  })
})

const bring = async (answer: object) => {
  answered.with = { revision: 0, label: '', row: 'r', ...answer }
  await importFiles('p', [new File([], 'horn.wav')])
  return session().notices.at(-1)!
}

test('a file that comes back says where, and by how much it is longer', async () => {
  expect((await bring({ landed: 'c' })).text).toBe('horn.wav is back on Horn, over what was there.')
  expect(view().clips, 'what has come back is selected').toEqual(['c'])
  expect((await bring({ landed: 'c', longer: 24000 })).text).toContain(
    'It is 0.50 s longer than what went out.',
  )
  expect((await bring({ landed: 'c', longer: -48000 })).text).toContain('1.00 s shorter')
})

test('a file that says when it begins is put there if wanted', async () => {
  expect((await bring({})).action).toBeUndefined()
  server.answers['POST /api/projects/p/changes'] = json({ revision: 1, label: '' })
  const told = await bring({ time: 96000 })
  expect(told.action!.text).toContain('0:02.00')
  told.action!.run()
  await vi.waitFor(
    () =>
      expect(server.last('POST', '/api/projects/p/changes')!.body).toMatchObject({
        changes: [{ type: 'clip.set', do: { id: 'c', start: 96000 } }],
      }),
    { timeout: 60_000 },
  )
})
