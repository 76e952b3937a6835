import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, expect, test, vi } from 'vitest'
import type { Remark, RemarkView } from '../api/types'
import { change } from '../session/changes'
import { session, setSession } from '../session/store'
import { setView, view } from '../session/view'
import { draw, open } from '../testing/screen'
import { FakeServer } from '../testing/server'
import { aboutNow, openRemarks } from './about'
import { RemarkCount } from './RemarkCount'
import { RemarkMark } from './RemarkMark'
import { RemarksCard } from './RemarksCard'

const asks: Record<string, unknown> = {}
vi.mock('../session/sound', () => ({
  theEngine: () => ({ ask: (what: string) => Promise.resolve(asks[what]), locate: vi.fn(), loop: vi.fn() }),
}))
vi.mock('../session/changes', async (original) => ({
  ...(await original<typeof import('../session/changes')>()),
  change: vi.fn(() => Promise.resolve(true)),
}))

const said = (id: string, person: string, text: string) => ({
  id,
  by: { person, name: person === 'me' ? 'Ada' : 'Bo' },
  time: '2026-11-30T12:00:00Z',
  text,
})
const remark = (id: string, more: Partial<Remark> = {}): Remark => ({
  id,
  at: { on: 'a', called: 'Marimba' },
  said: [said(`${id}1`, 'bo', `About ${id}`)],
  ...more,
})
const where = (id: string, more: Partial<RemarkView> = {}): RemarkView => ({
  id,
  called: 'Marimba',
  there: true,
  row: 'a',
  node: '',
  clip: '',
  line: '',
  from: 0,
  to: 0,
  waits: false,
  ...more,
})

beforeEach(() => {
  const server = new FakeServer()
  server.answers['GET /api/projects/p/crew'] = {
    accounts: false,
    role: 'owner',
    exports: true,
    people: [],
    links: [],
    tellable: [{ person: 'bo', name: 'Bo' }],
  }
  open((p) => {
    p.remarks = [
      remark('x'),
      remark('y', { settled: { by: { person: 'me', name: 'Ada' }, time: '2026-11-30T12:00:00Z' } }),
      remark('z'),
    ]
  })
  asks.remarks = [
    where('x', { waits: true }),
    where('y'),
    where('z', { there: false, called: 'Choir: Brake' }),
  ]
  asks.called = { called: 'Marimba' }
  setView({ dialog: null, channel: 'a', stage: '', clips: [], piece: null, loop: null })
  vi.mocked(change).mockClear()
})

test('what waits for me stands first, what is settled is shown when asked, and a place may be gone', async () => {
  draw(<RemarksCard />)
  const all = await screen.findAllByRole('article')
  expect(all.map((x) => x.getAttribute('aria-label'))).toEqual([
    'Remark about Marimba, for you',
    'Remark about Choir: Brake',
  ])
  expect(within(all[1]!).getByText('is no longer there')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Also what is settled: 1' }))
  expect(screen.getByText('Settled by Ada')).toBeTruthy()
  // by arrow keys from one to the next
  all[0]!.focus()
  fireEvent.keyDown(all[0]!, { key: 'ArrowDown' })
  expect(document.activeElement?.getAttribute('aria-label')).toBe('Remark about Choir: Brake')
})

test('something is said about what is selected, and to whom', async () => {
  draw(<RemarksCard about={{ at: 'a', from: 0, to: 0 }} />)
  fireEvent.change(await screen.findByLabelText('Say something about Marimba'), {
    target: { value: 'softer' },
  })
  fireEvent.click(await screen.findByRole('button', { name: 'Bo' }))
  fireEvent.keyDown(screen.getByLabelText('Say something about Marimba'), { key: 'Enter', ctrlKey: true })
  await waitFor(() =>
    expect(change).toHaveBeenCalledWith('Say something', {
      type: 'remark.make',
      do: { at: 'a', from: 0, to: 0, text: 'softer', told: [{ person: 'bo', name: 'Bo' }] },
    }),
  )
})

test('an answer goes to who has said something; a remark is settled', async () => {
  draw(<RemarksCard />)
  fireEvent.click((await screen.findAllByRole('button', { name: 'Answer' }))[0]!)
  fireEvent.change(screen.getByLabelText('Answer about Marimba'), { target: { value: 'done' } })
  await screen.findByRole('button', { name: 'Bo', pressed: true })
  fireEvent.submit(screen.getByLabelText('Answer about Marimba'))
  await waitFor(() =>
    expect(change).toHaveBeenCalledWith('Answer a remark', {
      type: 'remark.answer',
      do: { remark: 'x', text: 'done', told: [{ person: 'bo', name: 'Bo' }] },
    }),
  )
  fireEvent.click(screen.getAllByRole('button', { name: 'Settle it' })[0]!)
  expect(change).toHaveBeenLastCalledWith('Settle a remark', {
    type: 'remark.settle',
    do: { remark: 'x', settled: true },
  })
})

test('the count says what waits for me, and rows are marked', async () => {
  draw(
    <>
      <RemarkCount />
      <RemarkMark row="a" />
      <RemarkMark row="main" />
    </>,
  )
  expect(await screen.findByRole('button', { name: 'Remarks: 2, 1 for you' })).toBeTruthy()
  fireEvent.click(await screen.findByRole('button', { name: '2 remarks, for you too' }))
  expect(view().dialog).toEqual({ kind: 'remarks', row: 'a' })
  expect(session().said.main).toBeUndefined()
})

test('a listener removes nothing', async () => {
  act(() => setSession({ role: 'listener' }))
  draw(<RemarksCard />)
  await screen.findAllByRole('article')
  expect(screen.queryByRole('button', { name: 'Remove' })).toBeNull()
})

test('a remark is about a clip, else a stage, else a row, in the range that is drawn', () => {
  setView({ channel: 'a', stage: 'eq', clips: ['c'], loop: { from: 10.4, to: 20.6, name: '' } })
  expect(aboutNow()).toEqual({ at: 'c', from: 10, to: 21 })
  setView({ clips: [], loop: null })
  expect(aboutNow()).toEqual({ at: 'eq', from: 0, to: 0 })
  openRemarks()
  expect(view().dialog).toMatchObject({ kind: 'remarks', about: { at: 'eq' } })
  setView({ stage: '' })
  openRemarks() // about something else now
  expect(view().dialog).toMatchObject({ about: { at: 'a' } })
  openRemarks()
  expect(view().dialog).toBeNull()
})
