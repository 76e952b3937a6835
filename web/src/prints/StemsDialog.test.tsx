import { fireEvent, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { PrintSpec, StemPlan } from '../api/types'
import { view, setView } from '../session/view'
import { draw, open } from '../testing/screen'
import { FakeServer } from '../testing/server'
import { StemsDialog } from './StemsDialog'

let server: FakeServer
const asked = () => server.last('POST', '/api/projects/p/prints')?.body as PrintSpec | undefined
const planned = () => server.last('POST', '/api/projects/p/stems')?.body as PrintSpec | undefined

const plan = (more: Partial<StemPlan> = {}): StemPlan => ({
  files: [{ channel: 'a', kind: 'heard', row: 'Marimba', name: 'Low Tide 01 Marimba.wav' }],
  bytes: 3 << 20,
  free: 2 ** 31,
  says: ['They sum to the mix.'],
  ...more,
})

beforeEach(() => {
  server = new FakeServer()
  server.answers['POST /api/projects/p/stems'] = plan()
  server.answers['POST /api/projects/p/prints'] = { id: 'x', state: 'waiting' }
  open()
  setView({ rows: [], dialog: { kind: 'stems' } })
})
afterEach(() => vi.unstubAllGlobals())

test('what will come of it is seen before it is made', async () => {
  draw(<StemsDialog />)
  await screen.findByText('Low Tide 01 Marimba.wav')
  expect(screen.getByText('About 3 MB of 2.0 GB that are free. They sum to the mix.')).toBeTruthy()
  expect(planned()).toMatchObject({
    target: 'stems',
    format: 'wav24',
    from: 0,
    to: 480000,
    stems: { rows: [{ channel: 'a', kind: 'heard' }], trim: false },
  })
  fireEvent.click(screen.getByRole('button', { name: 'Make the file' }))
  await waitFor(() => expect(asked()).toEqual(planned()))
  await waitFor(() => expect(view().dialog).toBeNull())
})

test('the mix is brought to a loudness, and both kinds of a row are told apart', async () => {
  draw(<StemsDialog />)
  fireEvent.click(screen.getByRole('button', { name: 'The mix' }))
  fireEvent.click(screen.getByLabelText(/Bring the main output/))
  fireEvent.change(screen.getByLabelText('Loudness'), { target: { value: '-23' } })
  fireEvent.change(screen.getByLabelText('How rows are taken'), { target: { value: 'both' } })
  fireEvent.change(screen.getByLabelText('Pattern of the names'), { target: { value: '{row}' } })
  await waitFor(() =>
    expect(planned()?.stems).toMatchObject({
      rows: [
        { channel: 'main', kind: 'heard' },
        { channel: 'main', kind: 'chain' },
      ],
      pattern: '{row}',
      level: { lufs: -23, ceiling: -1 },
    }),
  )
})

test('rows are taken with their share of the returns, and what is in no share is seen beside main', async () => {
  server.answers['POST /api/projects/p/stems'] = plan({
    files: [
      { channel: 'a', kind: 'share', row: 'Marimba', name: 'Low Tide 01 Marimba.wav' },
      { channel: 'main', kind: 'rest', row: 'The rest', name: 'Low Tide 02 The rest.wav' },
    ],
  })
  draw(<StemsDialog />)
  fireEvent.change(screen.getByLabelText('How rows are taken'), { target: { value: 'share' } })
  await waitFor(() => expect(planned()?.stems?.rows).toEqual([{ channel: 'a', kind: 'share' }]))
  const main = screen.getByRole('checkbox', { name: /^Main/ })
  expect(main).toHaveProperty('checked', false)
  expect(main.closest('label')?.textContent).toContain('Low Tide 02 The rest.wav')
  expect(screen.getByRole('button', { name: 'Make 2 files' })).toBeTruthy()
})

test('what cannot be made says why, and is not asked for', async () => {
  server.answers['POST /api/projects/p/stems'] = plan({
    files: [],
    wrong: 'Two files would be called alike.',
  })
  draw(<StemsDialog />)
  await screen.findByText('Two files would be called alike.')
  const make = screen.getByRole('button', { name: /^Make/ })
  expect(make).toHaveProperty('disabled', true)
  fireEvent.submit(make.closest('form')!)
  expect(asked()).toBeUndefined()
})
