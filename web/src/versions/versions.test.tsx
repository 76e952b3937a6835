import { fireEvent, screen, waitFor } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { beforeEach, expect, test, vi } from 'vitest'
import { Logbook } from '../logbook/Logbook'
import { session, setSession } from '../session/store'
import { setView } from '../session/view'
import { draw, open } from '../testing/screen'
import { document as project, FakeServer, json } from '../testing/server'
import { Undo } from '../topbar/Undo'
import { Instead } from './Instead'
import { VersionsCard } from './VersionsCard'

const heard: string[] = []
vi.mock('../session/sound', () => ({
  theEngine: () => ({
    document: (p: { name: string }) => heard.push(p.name),
    worked: (keys: string[]) => heard.push(...keys),
    heard: () => ({ song: 480000 }),
  }),
}))

const version = {
  id: 'v',
  revision: 1,
  name: 'Rough',
  by: { id: 'me', name: 'Ada' },
  created: '2026-11-30T12:00:00Z',
}
const at = '/api/projects/p/versions'

let server: FakeServer
beforeEach(() => {
  heard.length = 0
  open()
  setView({ loop: null })
  server = new FakeServer()
  server.answers[`GET ${at}`] = [version]
  server.answers[`POST ${at}`] = version
  server.answers[`GET ${at}/v/differences`] = [
    { row: 'a', called: 'Marimba', says: ['Marimba is muted', 'level 0 dB to −3 dB'] },
    { row: '', called: 'The song', says: ['the tempo'] },
  ]
  server.answers[`POST ${at}/v/match`] = {
    gain: -1.25,
    document: { ...project(), name: 'Then' },
    worked: ['turned'],
  }
  server.answers[`POST ${at}/v/back`] = { revision: 1, label: 'Back to Rough' }
})

const card = () =>
  draw(
    <MemoryRouter>
      <VersionsCard />
      <Instead />
    </MemoryRouter>,
  )

test('a version is heard in place of now, as loud, over what lies around the playhead, and now again', async () => {
  card()
  fireEvent.click(await screen.findByRole('button', { name: 'Then' }))
  await screen.findByText(/You hear “Rough”, −1.3 dB/)
  expect(server.last('POST', `${at}/v/match`)!.body).toEqual({ from: 0, to: 0, at: 480000 })
  expect(heard).toEqual(['turned', 'Then']) // first what its clips need
  fireEvent.click(screen.getByRole('button', { name: 'Now' }))
  expect(heard).toEqual(['turned', 'Then', 'Low Tide'])
  expect(session().instead).toBeNull()
})

test('the range that is drawn is what is matched over; what cannot be measured is said, and now is heard', async () => {
  setView({ loop: { from: 100.2, to: 999.9, name: '' } })
  server.answers[`POST ${at}/v/match`] = json({ detail: 'this met a wall' }, 422)
  card()
  fireEvent.click(await screen.findByRole('button', { name: 'Then' }))
  await waitFor(() => expect(session().notices.at(-1)?.text).toBe('this met a wall'))
  expect(server.last('POST', `${at}/v/match`)!.body).toEqual({ from: 100, to: 1000, at: 480000 })
  expect(heard).toEqual([])
})

test('what changed is said row by row; a row goes back by itself, the song only with all', async () => {
  card()
  fireEvent.click(await screen.findByRole('button', { name: 'What changed' }))
  expect(await screen.findByText('Marimba is muted; level 0 dB to −3 dB')).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'The song back to what it was' })).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'Marimba back to what it was' }))
  await waitFor(() => expect(server.last('POST', `${at}/v/back`)!.body).toEqual({ rows: ['a'] }))
  fireEvent.click(screen.getByRole('button', { name: 'All of it back to “Rough”' }))
  await waitFor(() => expect(server.last('POST', `${at}/v/back`)!.body).toEqual({ rows: [] }))
  await waitFor(() => expect(session().notices.at(-1)?.text).toContain('Undo brings back what was'))
})

test('a listener names nothing and goes back to nothing, but hears and compares', async () => {
  setSession({ role: 'listener' })
  card()
  fireEvent.click(await screen.findByRole('button', { name: 'What changed' }))
  await screen.findByText('the tempo')
  expect(screen.queryByLabelText('Name of the version')).toBeNull()
  expect(screen.queryByRole('button', { name: /back to/i })).toBeNull()
})

test('the logbook is narrowed, and an entry says from what to what', async () => {
  const entry = {
    revision: 7,
    author: { id: 'me', name: 'Ada' },
    label: 'Softer',
    kind: 'do',
    spent: false,
    time: version.created,
  }
  server.answers['GET /api/projects/p/logbook'] = { entries: [entry], more: false }
  server.answers['GET /api/projects/p/crew'] = {
    accounts: false,
    role: 'owner',
    exports: true,
    people: [],
    tellable: [],
    links: [],
  }
  server.answers['GET /api/projects/p/changes/7'] = [
    { row: 'a', called: 'Marimba', says: ['level 0 dB to −3 dB'] },
  ]
  server.answers['POST /api/projects/p/changes/7/back'] = { revision: 1, label: 'Back to before change 7' }
  draw(<Logbook />)
  fireEvent.change(screen.getByLabelText('On which row'), { target: { value: 'a' } })
  fireEvent.change(screen.getByLabelText('Of which kind'), { target: { value: 'sends' } })
  await waitFor(() => {
    const q = server.last('GET', '/api/projects/p/logbook')!.query
    expect([q.get('row'), q.get('kind'), q.get('person')]).toEqual(['a', 'sends', null])
  })
  fireEvent.click(await screen.findByRole('button', { name: 'Softer' }))
  expect(await screen.findByText('level 0 dB to −3 dB')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'The whole project back to before this' }))
  await waitFor(() => expect(session().notices.at(-1)?.text).toContain('Back to before change 7'))
})

test('undo says before what it takes back, and what stands against it', async () => {
  server.answers['GET /api/projects/p/undo'] = {
    label: 'Softer',
    time: version.created,
    passed: ['Bo has built on it since'],
  }
  draw(<Undo which="undo" />)
  const button = screen.getByRole('button', { name: 'Undo' })
  fireEvent.focus(button)
  await waitFor(() =>
    expect(button.title).toBe(
      'Takes back your “Softer”, but passes it over: Bo has built on it since (Ctrl Z)',
    ),
  )
  server.answers['GET /api/projects/p/undo'] = { label: '', time: '', passed: [] }
  fireEvent.pointerEnter(button)
  await waitFor(() => expect(button.title).toContain('nothing of yours'))
})
