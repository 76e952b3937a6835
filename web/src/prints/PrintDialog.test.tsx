import { fireEvent, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useSession } from '../session/store'
import { setView, view } from '../session/view'
import { clip, draw, open } from '../testing/screen'
import { FakeServer, json } from '../testing/server'
import { printAsBefore } from './ofRow'
import { PrintDialog } from './PrintDialog'

let server: FakeServer
const asked = () => server.last('POST', '/api/projects/p/prints')?.body

beforeEach(() => {
  server = new FakeServer()
  server.answers['POST /api/projects/p/prints'] = { id: 'x', state: 'waiting' }
  open()
})
afterEach(() => vi.unstubAllGlobals())

test('the whole song goes to a new track, its source muted, unless something else is said', async () => {
  draw(<PrintDialog channel="a" target="track" />)
  expect(screen.queryByLabelText('Format'), 'a track has no format').toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'Print' }))
  await waitFor(() => expect(asked()).toBeTruthy())
  expect(asked()).toEqual({ channel: 'a', from: 0, to: 480000, tail: true, target: 'track', mute: true })
})

test('a section, without its tail, the source as loud as before', async () => {
  draw(<PrintDialog channel="a" target="track" />)
  fireEvent.change(screen.getByLabelText('What'), { target: { value: 'ebb' } })
  fireEvent.click(screen.getByLabelText(/With its tail/))
  fireEvent.click(screen.getByLabelText(/Mute Marimba/))
  fireEvent.click(screen.getByRole('button', { name: 'Print' }))
  await waitFor(() => expect(asked()).toBeTruthy())
  expect(asked()).toMatchObject({ from: 0, to: 96000, tail: false, mute: false })
})

test('the range on the ruler can be exported in a format', async () => {
  setView({ loop: { from: 1000.4, to: 2000.6, name: 'bars 2 to 3' } })
  draw(<PrintDialog channel="main" target="file" />)
  expect(screen.getByRole('dialog', { name: 'Export the main output' })).toBeTruthy()
  fireEvent.change(screen.getByLabelText('What'), { target: { value: 'range' } })
  fireEvent.change(screen.getByLabelText('Format'), { target: { value: 'flac16' } })
  fireEvent.click(screen.getByRole('button', { name: 'Export' }))
  await waitFor(() => expect(asked()).toBeTruthy())
  expect(asked()).toMatchObject({
    channel: 'main',
    from: 1000,
    to: 2001,
    target: 'file',
    format: 'flac16',
    mute: false,
  })
})

test('a refusal is said, and what was chosen stays', async () => {
  setView({ dialog: { kind: 'print', channel: 'a', target: 'track' } })
  server.answers['POST /api/projects/p/prints'] = json({ detail: 'The disk is full.' }, 422)
  draw(<PrintDialog channel="a" target="track" />)
  fireEvent.click(screen.getByRole('button', { name: 'Print' }))
  await waitFor(() => expect(useSession.getState().notices.at(-1)?.text).toBe('The disk is full.'))
  expect(view().dialog?.kind).toBe('print')
})

test('a row that is gone meanwhile is not printed', () => {
  draw(<PrintDialog channel="gone" target="track" />)
  expect(screen.queryByRole('dialog')).toBeNull()
})

test('a row is printed where its clips stand, and its stages are taken away if wanted', async () => {
  server.answers['POST /api/projects/p/clips/print'] = json({ revision: 0, label: '' })
  open((p) => {
    p.channels[0]!.id = 'a'
    p.channels[0]!.clips = [clip('c')]
  })
  draw(<PrintDialog channel="a" target="track" />)
  fireEvent.change(screen.getByLabelText('Where to'), { target: { value: 'here' } })
  expect(screen.getByText(/it enters behind the chain/)).toBeTruthy()
  fireEvent.click(screen.getByLabelText(/Take the stages away/))
  expect(screen.getByText(/the chain is empty then/)).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Print' }))
  await waitFor(() =>
    expect(server.last('POST', '/api/projects/p/clips/print')?.body).toEqual({ clips: ['c'], empty: true }),
  )
})

test('a row is printed again as one was printed last, without asking', async () => {
  draw(<PrintDialog channel="a" target="track" />)
  fireEvent.click(screen.getByLabelText(/With its tail/))
  fireEvent.click(screen.getByRole('button', { name: 'Print' }))
  await waitFor(() => expect(asked()).toMatchObject({ channel: 'a', tail: false }))
  printAsBefore({ ...useSession.getState().project!.channels[0]!, id: 'b' })
  await waitFor(() => expect(asked()).toMatchObject({ channel: 'b', tail: false, mute: true, to: 480000 }))
})
