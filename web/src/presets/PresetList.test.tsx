import { fireEvent, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Preset } from '../api/types'
import { useSession } from '../session/store'
import { draw, open, stage } from '../testing/screen'
import { FakeServer } from '../testing/server'
import { PresetList } from './PresetList'

const preset = (id: string, name: string, more: Partial<Preset> = {}): Preset => ({
  version: 1,
  id,
  kind: 'stage',
  effect: 'trim',
  name,
  says: `For ${name.toLowerCase()}.`,
  tags: ['level'],
  shipped: true,
  unknown: [],
  body: { mix: 100, fader: 0, pan: 0, stereo: true, soloSafe: false, tint: 0 },
  ...more,
})

let server: FakeServer
const options = () => screen.queryAllByRole('option').map((o) => o.querySelector('span')!.textContent)

beforeEach(async () => {
  server = new FakeServer()
  server.answers['GET /api/presets'] = [
    preset('one', 'Half as loud'),
    preset('two', 'Twice as loud', { tags: ['level', 'bold'] }),
    preset('own', 'As at home', { shipped: false, unknown: ['Trim sparkle'] }),
    preset('other', 'Cave', { effect: 'reverb' }),
  ]
  server.answers['GET /api/projects/p/presets'] = { label: 'Take it', changes: [] }
  server.answers['POST /api/projects/p/changes'] = { revision: 1, label: '' }
  open((p) => (p.channels[0]!.chain.nodes = [{ stage: stage('s', 'trim') }]))
  draw(<PresetList of="stage" target="s" />)
  await screen.findByText('Half as loud')
})
afterEach(() => vi.unstubAllGlobals())

test('those of the effect are shown, found by words and by tag', () => {
  expect(options()).toEqual(['Half as loud', 'Twice as loud', 'As at home'])
  fireEvent.change(screen.getByLabelText('Search presets'), { target: { value: 'twice' } })
  expect(options()).toEqual(['Twice as loud'])
  fireEvent.change(screen.getByLabelText('Search presets'), { target: { value: '' } })
  fireEvent.click(screen.getByRole('button', { name: 'bold' }))
  expect(options()).toEqual(['Twice as loud'])
  fireEvent.change(screen.getByLabelText('Search presets'), { target: { value: 'nothing like it' } })
  expect(screen.getByText('No preset matches.')).toBeTruthy()
})

test('arrows try one after the other and change nothing; Enter takes', async () => {
  const list = screen.getByLabelText('Search presets')
  fireEvent.keyDown(list, { key: 'ArrowDown' })
  expect(screen.getByRole('option', { name: /Half as loud/ }).getAttribute('aria-selected')).toBe('true')
  fireEvent.keyDown(list, { key: 'ArrowDown' })
  await waitFor(() => expect(server.last('GET', '/api/projects/p/presets')?.query.get('preset')).toBe('two'))
  expect(server.count('POST', '/api/projects/p/changes')).toBe(0)
  fireEvent.keyDown(list, { key: 'Enter' })
  await waitFor(() => expect(server.count('POST', '/api/projects/p/changes')).toBe(1))
})

test('a name that nothing goes by and Enter: the present setting is kept under it', async () => {
  server.answers['POST /api/presets'] = preset('new', 'Late bells', { shipped: false })
  const list = screen.getByLabelText('Search presets')
  fireEvent.change(list, { target: { value: 'half' } })
  fireEvent.keyDown(list, { key: 'Enter' }) // something goes by it
  fireEvent.change(list, { target: { value: ' Halv as loud ' } }) // two come near, and neither is meant
  expect(options().length).toBeGreaterThan(0)
  expect(screen.getByText(/None goes by “Halv as loud”/)).toBeTruthy()
  fireEvent.keyDown(list, { key: 'Enter' })
  await waitFor(() => expect(server.count('POST', '/api/presets')).toBe(1))
  expect(server.last('POST', '/api/presets')?.body).toMatchObject({
    name: 'Halv as loud',
    kind: 'stage',
    target: 's',
  })
})

test('only what was saved here can be deleted; it can be taken back', async () => {
  expect(screen.queryByRole('button', { name: 'Menu of Half as loud' })).toBeNull()
  server.answers['DELETE /api/presets/own'] = { ok: true }
  server.answers['POST /api/presets/own/restore'] = { ok: true }
  fireEvent.click(screen.getByRole('button', { name: 'Menu of As at home' }))
  fireEvent.click(await screen.findByRole('menuitem', { name: 'Delete' }))
  await waitFor(() => expect(server.count('DELETE', '/api/presets/own')).toBe(1))
  await waitFor(() => expect(useSession.getState().notices.at(-1)?.text).toBe('As at home is deleted.'))
  useSession.getState().notices.at(-1)!.action!.run()
  await waitFor(() => expect(server.count('POST', '/api/presets/own/restore')).toBe(1))
})

test('what of a preset is not known here is said', () => {
  expect(screen.getByText(/Unknown here, kept and left out: Trim sparkle/)).toBeTruthy()
})
