import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { beforeEach, expect, test, vi } from 'vitest'
import type { Crew, LinkSays } from '../api/types'
import { session, setSession } from '../session/store'
import { draw, open } from '../testing/screen'
import { FakeServer, json } from '../testing/server'
import { CrewCard } from './CrewCard'
import { RoleSays } from './RoleSays'
import { SignIn } from './SignIn'
import { Welcome } from './Welcome'

vi.mock('../session/along', () => ({ hearAlong: vi.fn(), leaveAlong: vi.fn() }))

let server: FakeServer
beforeEach(() => {
  open()
  server = new FakeServer()
})

const welcome = (link: Partial<LinkSays>, me = { id: '', name: '' }) => {
  location.hash = '#the-key'
  server.answers['GET /api/me'] = { ...me, accounts: true, keeper: false }
  server.answers['POST /api/links/look'] = { kind: 'join', until: '2026-12-01T00:00:00Z', ...link }
  server.answers['POST /api/links/take'] = {
    id: 'o',
    name: 'Odile',
    accounts: true,
    keeper: false,
    project: 'p',
  }
  draw(
    <MemoryRouter>
      <Welcome />
    </MemoryRouter>,
  )
}

test('a link says who brings one into what, and asks a newcomer for a name and a password', async () => {
  welcome({ by: 'Ada', project: 'Rope', role: 'engineer' })
  expect(await screen.findByText('Ada brings you into “Rope”, as an engineer.')).toBeTruthy()
  expect(server.last('POST', '/api/links/look')!.body).toEqual({ key: 'the-key' })
  fireEvent.change(screen.getByLabelText('Your name, as others see it'), { target: { value: 'Odile' } })
  fireEvent.change(screen.getByLabelText(/^Password/), { target: { value: 'seven boats at noon' } })
  fireEvent.submit(screen.getByRole('button', { name: 'Come in' }))
  await waitFor(() =>
    expect(server.last('POST', '/api/links/take')!.body).toEqual({
      key: 'the-key',
      name: 'Odile',
      password: 'seven boats at noon',
    }),
  )
})

test('who is signed in comes in with one press, and a new password needs no name', async () => {
  welcome({ by: 'Ada', project: 'Rope', role: 'listener' }, { id: 'n', name: 'Nils' })
  expect(await screen.findByText(/as a listener. You are signed in as Nils./)).toBeTruthy()
  expect(screen.queryByLabelText(/^Password/)).toBeNull()
})

test('a password is chosen anew without a name', async () => {
  welcome({ kind: 'reset', for: 'Nils' })
  expect(await screen.findByText(/^For Nils/)).toBeTruthy()
  expect(screen.queryByLabelText('Your name, as others see it')).toBeNull()
  const password = screen.getByLabelText(/^Password/)
  expect(password).toHaveProperty('type', 'password')
  fireEvent.click(screen.getByRole('button', { name: 'Show' }))
  expect(password).toHaveProperty('type', 'text')
})

test('a link that opens nothing says why', async () => {
  server.answers['GET /api/me'] = { id: '', name: '', accounts: true, keeper: false }
  server.answers['POST /api/links/look'] = json({ detail: 'this link was used already' }, 410)
  draw(
    <MemoryRouter>
      <Welcome />
    </MemoryRouter>,
  )
  expect(await screen.findByText('this link was used already')).toBeTruthy()
})

test('what is wrong with signing in is said where it is typed, and nothing else is asked', async () => {
  server.answers['POST /api/session'] = json({ detail: 'there is no account of this name' }, 401)
  const inside = vi.fn()
  draw(<SignIn onIn={inside} />)
  fireEvent.submit(screen.getByRole('button', { name: 'Sign in' }))
  expect((await screen.findByRole('alert')).textContent).toBe('there is no account of this name')
  expect(session().naming).toBeNull()
  server.answers['POST /api/session'] = { id: 'a', name: 'Ada', accounts: true, keeper: true }
  fireEvent.submit(screen.getByRole('button', { name: 'Sign in' }))
  await waitFor(() => expect(inside).toHaveBeenCalledWith(expect.objectContaining({ name: 'Ada' })))
})

const member = (id: string, name: string, role: 'owner' | 'engineer' | 'listener') => ({
  person: { id, name },
  role,
  by: 'Ada',
  since: '2026-11-30T12:00:00Z',
})

const crew = (role: Crew['role']): Crew => ({
  accounts: true,
  role,
  exports: false,
  people: [member('me', 'Ada', 'owner'), member('n', 'Nils', 'listener')],
  links: [],
  tellable: [],
})

const card = () =>
  draw(
    <MemoryRouter>
      <CrewCard />
    </MemoryRouter>,
  )

test('an owner gives roles, takes out, and makes links; each is seen once', async () => {
  server.answers['GET /api/projects/p/crew'] = crew('owner')
  server.answers['PUT /api/projects/p/crew/n'] = { ok: true }
  server.answers['POST /api/projects/p/links'] = { path: '/welcome#abc', until: '2026-12-07T00:00:00Z' }
  card()
  fireEvent.change(await screen.findByLabelText('Role of Nils'), { target: { value: 'engineer' } })
  await waitFor(() =>
    expect(server.last('PUT', '/api/projects/p/crew/n')!.body).toEqual({ role: 'engineer' }),
  )
  fireEvent.change(screen.getByLabelText('How many'), { target: { value: '20' } })
  fireEvent.submit(screen.getByRole('button', { name: 'Make a link' }))
  expect(((await screen.findByLabelText('The link')) as HTMLInputElement).value).toBe(
    `${location.origin}/welcome#abc`,
  )
  expect(server.last('POST', '/api/projects/p/links')!.body).toEqual({
    role: 'engineer',
    uses: 20,
    hours: 168,
  })
})

test('who is no owner sees the roles and may leave', async () => {
  server.answers['GET /api/projects/p/crew'] = crew('engineer')
  card()
  const nils = (await screen.findByText('Nils')).closest('li')!
  expect(within(nils).getByText('Listener')).toBeTruthy()
  expect(screen.queryByRole('combobox')).toBeNull()
  expect(screen.getAllByRole('button', { name: 'Leave' })).toHaveLength(1)
  expect(within(nils).queryByRole('button')).toBeNull()
})

test('on one’s own machine there is nothing to give, and it says how there would be', async () => {
  server.answers['GET /api/projects/p/crew'] = { ...crew('owner'), accounts: false, people: [] }
  card()
  expect(await screen.findByText(/for this machine only/)).toBeTruthy()
  expect(screen.getByText('Nobody else has this project open.')).toBeTruthy()
})

test('a listener is told what they may, before they try', () => {
  setSession({ role: 'listener' })
  draw(<RoleSays />)
  expect(screen.getByText(/You are a listener here/)).toBeTruthy()
})
