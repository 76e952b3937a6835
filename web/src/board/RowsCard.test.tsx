import { fireEvent, screen } from '@testing-library/react'
import { beforeEach, expect, test, vi } from 'vitest'
import { change } from '../session/changes'
import { setView, view } from '../session/view'
import { open, draw } from '../testing/screen'
import { RowsCard } from './RowsCard'

vi.mock('../session/changes', async (original) => ({
  ...(await original<typeof import('../session/changes')>()),
  change: vi.fn(() => Promise.resolve(true)),
}))

beforeEach(() => {
  open((p) => {
    const [a] = p.channels
    p.channels.splice(
      1,
      0,
      { ...a!, id: 'b', name: 'Handbells' },
      { ...a!, id: 'h', name: 'Stone hall', kind: 'return', hidden: true },
    )
  })
  setView({ dialog: { kind: 'rows' } })
  vi.mocked(change).mockClear()
})

const asked = () => vi.mocked(change).mock.calls.map(([label, ...what]) => [label, what])

test('a row is found by its name or kind, and Enter goes to it', () => {
  draw(<RowsCard />)
  const search = screen.getByLabelText('Search rows')
  fireEvent.change(search, { target: { value: 'return' } })
  expect(screen.getAllByRole('listitem')).toHaveLength(1)
  fireEvent.keyDown(search, { key: 'Enter' })
  expect(view().channel).toBe('h')
  expect(view().dialog).toBeNull()
})

test('several are hidden at once, and one is shown again', () => {
  draw(<RowsCard />)
  fireEvent.click(screen.getByLabelText('Choose Marimba'))
  fireEvent.click(screen.getByLabelText('Choose Handbells'))
  fireEvent.click(screen.getByRole('button', { name: 'Hide 2' }))
  fireEvent.click(screen.getByRole('button', { name: 'Show Stone hall' }))
  expect(asked()).toEqual([
    [
      'Hide 2 rows',
      [
        { type: 'channel.set', do: { id: 'a', hidden: true } },
        { type: 'channel.set', do: { id: 'b', hidden: true } },
      ],
    ],
    ['Show Stone hall', [{ type: 'channel.set', do: { id: 'h', hidden: false } }]],
  ])
})

test('the main output can be gone to, but not hidden', () => {
  draw(<RowsCard />)
  expect(screen.queryByRole('button', { name: 'Hide Main' })).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: /^Main/ }))
  expect(view().channel).toBe('main')
})
