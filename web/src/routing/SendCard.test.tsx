import { fireEvent, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { setSession } from '../session/store'
import { useView, view } from '../session/view'
import { draw, effect, open } from '../testing/screen'
import { FakeServer } from '../testing/server'
import { SendCard } from './SendCard'

let server: FakeServer

beforeEach(() => {
  server = new FakeServer()
  server.answers['GET /api/presets'] = []
  server.answers['POST /api/projects/p/changes'] = { revision: 1, label: '' }
  const p = open((p) => {
    const hall = { ...p.channels[0]!, id: 'hall', name: 'Stone hall', kind: 'return' as const }
    p.channels.splice(1, 0, hall)
  })
  setSession({
    effects: [
      effect('trim'),
      effect('reverb', { family: 'Space', version: 2, newest: 2 }),
      effect('reverb', { family: 'Space', version: 1, newest: 2 }),
    ],
  })
  useView.setState({ dialog: { kind: 'send', rows: ['a'] } })
  expect(p.channels).toHaveLength(3)
  draw(<SendCard rows={['a']} />)
})

afterEach(() => vi.unstubAllGlobals())

const changes = () =>
  server.last('POST', '/api/projects/p/changes')?.body as { changes: unknown[] } | undefined

test('a new return with an effect on it is one step', async () => {
  fireEvent.change(screen.getByLabelText('A new return, named'), { target: { value: 'Cave' } })
  fireEvent.click(screen.getByRole('button', { name: 'Make the return and the send' }))
  await waitFor(() => expect(changes()).toBeTruthy())
  expect(changes()?.changes).toEqual([
    {
      type: 'return.make',
      do: expect.objectContaining({ name: 'Cave', effect: 'reverb', channels: ['a'] }) as unknown,
    },
  ])
  await waitFor(() => expect(view().dialog).toBeNull())
})

test('each effect is offered once, as it is made now', () => {
  const names = screen.getAllByRole('option').map((o) => o.textContent)
  expect(names).toEqual(['nothing yet', 'Trim', 'Reverb'])
})

test('a return that is there takes the send', async () => {
  fireEvent.click(screen.getByRole('button', { name: 'Stone hall' }))
  await waitFor(() => expect(changes()).toBeTruthy())
  expect(changes()?.changes).toEqual([{ type: 'send.rows', do: { to: 'hall', channels: ['a'] } }])
  await waitFor(() => expect(view().dialog).toBeNull())
})

test('a return that has it already is not offered again', () => {
  const p = open((p) => {
    const hall = { ...p.channels[0]!, id: 'hall', name: 'Stone hall', kind: 'return' as const }
    p.channels.splice(1, 0, hall)
    p.channels[0] = {
      ...p.channels[0]!,
      sends: [{ id: 's', to: 'hall', pre: false, level: -6, pan: 0, mute: false }],
    }
  })
  expect(p.channels[0]!.sends).toHaveLength(1)
  draw(<SendCard rows={['a']} />)
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Stone hall' }).disabled).toBe(true)
})
