import { fireEvent, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Worked } from '../api/types'
import { setSession } from '../session/store'
import { clip, draw, open } from '../testing/screen'
import { WorkOfClips } from './WorkOfClips'
import { WorkOnClip } from './WorkOnClip'
import { inWords } from './worked'

const asked: string[] = []

beforeEach(() => {
  asked.length = 0
  vi.stubGlobal('fetch', (input: Request) => {
    asked.push(`${input.method} ${new URL(input.url).pathname}`)
    return Promise.resolve(Response.json({ ok: true }))
  })
})
afterEach(() => vi.unstubAllGlobals())

const work = (more: Partial<Worked>): Worked => ({
  key: 'k',
  clips: ['a'],
  state: 'running',
  progress: 0.42,
  frames: 48000,
  lead: 0,
  ...more,
})

function show(more: Partial<Worked>) {
  const x = clip('a')
  const p = open((p) => (p.channels[0]!.clips = [x]))
  setSession({ worked: [work(more)] })
  draw(<WorkOfClips clips={[x]} />)
  return p.id
}

test('what is being worked out says how far it is, and is called off', async () => {
  const id = show({})
  expect(screen.getByText('working out, 42 %')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Call it off' }))
  await waitFor(() => expect(asked).toEqual([`DELETE /api/projects/${id}/works/k`]))
})

test('what has failed says why, and is tried again', async () => {
  const id = show({ state: 'failed', error: 'the disk is full' })
  expect(screen.getByText('not worked out: the disk is full')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }))
  await waitFor(() => expect(asked).toEqual([`POST /api/projects/${id}/works/k`]))
})

test('what waits to be asked for is asked for; what is done, or of other clips, says nothing', () => {
  show({ state: 'asked' })
  expect(screen.getByRole('button', { name: 'Work it out' })).toBeTruthy()
  show({ state: 'done' })
  expect(screen.queryByRole('button')).toBeNull()
  show({ clips: ['b'] })
  expect(screen.queryByRole('button')).toBeNull()
})

test('on a clip it is as far as it is, and nothing when it is done', () => {
  draw(<WorkOnClip work={work({})} width={200} />)
  expect(screen.getByRole('progressbar').getAttribute('aria-valuenow')).toBe('42')
  expect(screen.getByRole('progressbar').style.width).toBe('84px')
  draw(<WorkOnClip work={work({ state: 'done' })} width={200} />)
  expect(screen.queryByRole('progressbar')).toBeNull()
  expect(inWords(work({ state: 'cancelled' }))).toMatch(/what was before is heard/)
})
