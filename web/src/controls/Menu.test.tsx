import { act, fireEvent, screen, waitFor } from '@testing-library/react'
import { beforeEach, expect, test, vi } from 'vitest'
import { draw } from '../testing/screen'
import { Menu } from './Menu'
import type { Item } from './MenuEntry'

const run = vi.fn()

const items: Item[] = [
  { text: 'Rename', key: 'N', run: () => run('rename') },
  false,
  { text: 'Print', run: () => run('print'), off: true },
  { text: 'Remove', run: () => run('remove') },
]

const button = () => screen.getByRole('button', { name: 'Menu of Marimba' })

const focused = () => document.activeElement?.textContent

async function opened() {
  fireEvent.click(button())
  await screen.findByRole('menu')
  await waitFor(() => expect(focused()).toMatch(/Rename/))
  await settled()
}

/** The focus is given in the next picture: until then a key may come too early. */
const settled = () =>
  act(async () => {
    for (let i = 0; i < 2; i++) await new Promise((drawn) => requestAnimationFrame(drawn))
  })

beforeEach(() => {
  run.mockClear()
  draw(
    <Menu label="Menu of Marimba" items={items}>
      ⋯
    </Menu>,
  )
})

test('it is there only while it is open, with what can be done', async () => {
  expect(screen.queryByRole('menu')).toBeNull()
  await opened()
  expect(screen.getAllByRole('menuitem').map((x) => x.textContent)).toEqual(['RenameN', 'Print', 'Remove'])
  expect(button().getAttribute('aria-expanded')).toBe('true')
})

test('arrow keys lead through it, past what is off and round its ends', async () => {
  await opened()
  const menu = screen.getByRole('menu')
  fireEvent.keyDown(menu, { key: 'ArrowDown' })
  await waitFor(() => expect(focused()).toMatch(/Remove/))
  await settled()
  fireEvent.keyDown(menu, { key: 'ArrowDown' })
  await waitFor(() => expect(focused()).toMatch(/Rename/))
  await settled()
  fireEvent.keyDown(menu, { key: 'ArrowUp' })
  await waitFor(() => expect(focused()).toMatch(/Remove/))
})

test('an arrow key opens it, at its first entry or its last; another press of its button closes it', async () => {
  fireEvent.keyDown(button(), { key: 'ArrowUp' })
  await waitFor(() => expect(focused()).toMatch(/Remove/))
  fireEvent.click(button())
  await waitFor(() => expect(screen.queryByRole('menu')).toBeNull())
  expect(button().getAttribute('aria-expanded')).toBe('false')
  fireEvent.keyDown(button(), { key: 'ArrowDown' })
  await waitFor(() => expect(focused()).toMatch(/Rename/))
  expect(screen.getByRole('menu', { name: 'Menu of Marimba' })).toBeTruthy()
})

test('what is chosen is done once, and the menu is gone', async () => {
  await opened()
  fireEvent.click(screen.getByRole('menuitem', { name: 'Remove' }))
  expect(run.mock.calls).toEqual([['remove']])
  await waitFor(() => expect(screen.queryByRole('menu')).toBeNull())
})

test('Escape leads back to its button and does nothing', async () => {
  await opened()
  fireEvent.keyDown(screen.getByRole('menu'), { key: 'Escape' })
  await waitFor(() => expect(screen.queryByRole('menu')).toBeNull())
  expect(document.activeElement).toBe(button())
  expect(run).not.toHaveBeenCalled()
})

test('its keys are not the board’s; those of the closed button are', async () => {
  const board = vi.fn()
  window.addEventListener('keydown', board)
  fireEvent.keyDown(button(), { key: 'n' })
  expect(board).toHaveBeenCalledOnce()
  await opened()
  fireEvent.keyDown(screen.getByRole('menu'), { key: 'n' })
  expect(board).toHaveBeenCalledOnce()
  window.removeEventListener('keydown', board)
})
