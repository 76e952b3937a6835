import type { Page } from '@playwright/test'
import { expect, row, test } from '../support/shoal'

const order = (board: Page) =>
  board.getByRole('button', { name: /^Menu of the section / }).evaluateAll((list) =>
    list
      .map((b) => ({ x: b.getBoundingClientRect().left, name: b.getAttribute('aria-label')!.slice(20) }))
      .sort((a, b) => a.x - b.x)
      .map((s) => s.name),
  )
/** The playhead to a bar, one after the other. */
async function to(board: Page, bar: number) {
  await expect(board.getByRole('button', { name: 'Menu of the section Ebb' })).toBeVisible() // the song is laid out
  for (let i = 2; i <= bar; i++) {
    await board.keyboard.press('.')
    await expect(board.getByTestId('bars')).toHaveText(`${i}.1.00`)
  }
}
const menu = async (board: Page, section: string, item: string) => {
  await board.getByRole('button', { name: `Menu of the section ${section}`, exact: true }).click()
  await board.getByRole('menuitem', { name: item, exact: true }).click()
}

test('a section is moved, repeated and removed with everything in it', async ({ board }) => {
  await expect.poll(() => order(board)).toEqual(['Ebb', 'Slack', 'Flood', 'High Water'])
  const band = board.getByRole('button', { name: 'Passage Held breath' })
  const before = (await band.boundingBox())!.x
  await menu(board, 'Slack', 'Move it later')
  // asked once, and remembered
  await board.getByRole('dialog').getByRole('button', { name: 'Take them along' }).click()
  await expect.poll(() => order(board)).toEqual(['Ebb', 'Flood', 'Slack', 'High Water'])
  await expect.poll(async () => (await band.boundingBox())!.x).toBeGreaterThan(before + 100)
  await menu(board, 'Slack', 'Repeat it')
  await expect.poll(() => order(board)).toEqual(['Ebb', 'Flood', 'Slack', 'Slack 2', 'High Water'])
  await expect(band).toHaveCount(2)
  await menu(board, 'Slack', 'Remove it with everything in it')
  await expect.poll(() => order(board)).toEqual(['Ebb', 'Flood', 'Slack 2', 'High Water'])
  await expect(band).toHaveCount(1)
  for (let i = 0; i < 3; i++) await board.keyboard.press('Control+z')
  await expect.poll(() => order(board)).toEqual(['Ebb', 'Slack', 'Flood', 'High Water'])
  await expect.poll(async () => (await band.boundingBox())!.x).toBeCloseTo(before, 0)
})

test('a section begins at the playhead and is named; clips are cut where sections begin', async ({ board }) => {
  await to(board, 6)
  await board.getByRole('button', { name: /^Menu of the project/ }).click()
  await board.getByRole('menuitem', { name: 'Begin a section at the playhead' }).click()
  const name = board.getByLabel('Name of the section')
  await name.fill('Low light')
  await name.press('Enter')
  await expect.poll(() => order(board)).toEqual(['Ebb', 'Low light', 'Slack', 'Flood', 'High Water'])
  const clips = row(board, 'Marimba').locator('[data-clip]')
  const many = await clips.count()
  await board.getByRole('button', { name: 'Menu of Marimba' }).click()
  await board.getByRole('menuitem', { name: 'Cut its clips where sections begin' }).click()
  await expect.poll(() => clips.count()).toBeGreaterThan(many)
})

test('the tempo goes up in a ramp', async ({ board }) => {
  await to(board, 3)
  const length = board.getByText(/^of \d+:\d\d$/)
  const before = await length.textContent()
  await board.getByRole('button', { name: /^Menu of the project/ }).click()
  await board.getByRole('menuitem', { name: 'Tempo and its ramps' }).click()
  const card = board.getByRole('dialog', { name: 'Tempo' })
  await card.getByRole('button', { name: 'Another tempo from the playhead on' }).click()
  await card.getByRole('textbox', { name: 'Tempo from bar 3.1' }).fill('132')
  await card.getByRole('textbox', { name: 'Tempo from bar 3.1' }).press('Enter')
  await card.getByLabel('Ramp from bar 1.1').click()
  await expect(card.getByLabel('Ramp from bar 1.1')).toBeChecked()
  await expect(length).not.toHaveText(before!)
  await card.getByRole('textbox', { name: 'Tempo from bar 3.1' }).fill('1000')
  await card.getByRole('textbox', { name: 'Tempo from bar 3.1' }).press('Enter')
  await expect(board.getByText('it must be 10 to 400 quarter notes a minute')).toBeVisible()
  await card.getByRole('button', { name: 'Close' }).click()
  await board.keyboard.press('Home')
  await expect(board.getByTitle('Quarter notes a minute at the playhead; click for all tempos')).toContainText('88.0')
  await board.keyboard.press('.')
  await expect(board.getByTitle('Quarter notes a minute at the playhead; click for all tempos')).not.toContainText('88.0')
})
