import type { Locator, Page } from '@playwright/test'
import { expect, row, test } from '../support/shoal'

/** Opens the menu of something by the other button, goes through it by arrow keys, and puts it away. */
async function menuOf(page: Page, of: Locator, has: string, position?: { x: number; y: number }) {
  await of.click({ button: 'right', position })
  const menu = page.getByRole('menu')
  await expect(menu.getByRole('menuitem', { name: has, exact: false }).first()).toBeVisible()
  await expect(menu.getByRole('menuitem').first()).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await expect(menu.getByRole('menuitem').first()).not.toBeFocused()
  await page.keyboard.press('Escape')
  await expect(menu).toBeHidden()
}

test('the other button opens what can be done to a thing: rows, stages, forks, paths, sends, figures, clips, lines, the ruler', async ({
  board,
}) => {
  const marimba = row(board, 'Marimba')
  await menuOf(board, marimba.getByRole('button', { name: 'Marimba', exact: true }), 'Duplicate with everything on it')
  await menuOf(board, marimba.getByRole('button', { name: 'Dotted echo' }), 'Remove')
  await menuOf(board, row(board, 'Low horn').getByRole('button', { name: /^Hull and breath/ }), 'Dissolve into one path')
  const bench = board.getByRole('region', { name: 'Bench' })
  await menuOf(board, bench.getByRole('button', { name: /^Path / }).first(), 'Make the paths equally loud')
  await menuOf(board, marimba.getByTitle(/^Send to Stone hall/), 'Copy to all tracks, silent')
  await menuOf(board, marimba.getByTitle(/Level here/).first(), 'Hear the chain up to here')
  await menuOf(board, marimba.getByRole('group', { name: /, a clip/ }).first(), 'Name it', { x: 20, y: 8 })
  const time = board.getByRole('region', { name: /^Time/ })
  await menuOf(board, time, 'Begin a section here', { x: 300, y: 40 })
  await menuOf(board, time.getByRole('button', { name: 'Flood', exact: true }), 'Repeat it')
  await menuOf(board, time.getByRole('button', { name: 'Passage Held breath' }), 'Name it')
  await row(board, 'Choir').getByRole('button', { name: 'Choir', exact: true }).click()
  await board.keyboard.press('x')
  await menuOf(board, board.getByRole('group', { name: /^Line of / }).first(), 'Fold it')
})

test('a stage is added where a figure stands, and the song is played from where the ruler is pressed', async ({ board }) => {
  const drum = row(board, 'Frame drum')
  await drum
    .getByTitle(/Level here/)
    .first()
    .click({ button: 'right' })
  await board.getByRole('menuitem', { name: 'Add a stage here' }).click()
  await expect(board.getByText('Add to Frame drum, place 2')).toBeVisible()
  await board.keyboard.type('trim')
  await board.keyboard.press('Enter')
  await expect(drum.locator('[data-stage]').nth(1)).toHaveAccessibleName('Trim')

  const time = board.getByRole('region', { name: /^Time/ })
  await time.click({ button: 'right', position: { x: 600, y: 40 } })
  await board.getByRole('menuitem', { name: 'Play from here' }).click()
  await expect(board.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await expect.poll(async () => (await board.getByTestId('clock').textContent()) ?? '', 'past a minute').toMatch(/^1:/)
})
