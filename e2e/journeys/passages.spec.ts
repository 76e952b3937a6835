import type { Locator, Page } from '@playwright/test'
import { expect, row, stagesOf, test } from '../support/shoal'

const bench = (board: Page, name: string) => board.getByRole('group', { name: `Passage ${name}`, exact: true })
const band = (board: Page, name: string) => board.getByRole('button', { name: `Passage ${name}`, exact: true })

/** Where a passage lies, as its bench says. */
async function lies(panel: Locator, from: string, to: string) {
  await expect(panel.getByLabel('Begins at bar.beat')).toHaveValue(from)
  await expect(panel.getByLabel('Ends at bar.beat')).toHaveValue(to)
}

/** Drags along the ruler from one bar to another, counted from 1. */
async function mark(board: Page, from: number, to: number) {
  const box = (await board.getByRole('region', { name: /^Time: click/ }).boundingBox())!
  const perBar = (box.width / 1134) * 16.03
  const y = box.y + box.height - 10 // where the bars are
  await board.mouse.move(box.x + (from - 1) * perBar + 2, y)
  await board.mouse.down()
  await board.mouse.move(box.x + (to - 1) * perBar - 1, y, { steps: 5 })
  await board.mouse.up()
}

test('a passage is made of a range, brings what it needs, and takes it along', async ({ board }) => {
  await mark(board, 37, 41)
  await row(board, 'Low horn').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('Shift+L')
  const card = board.getByRole('dialog', { name: 'Make a passage' })
  await expect(card.getByText('bars 37 to 40')).toBeVisible()
  await card.getByLabel('Frame drum', { exact: true }).check()
  await card.getByLabel('Search kinds of passages').fill('close')
  await board.keyboard.press('Enter')
  await expect(board.getByText('Placed: Closing (filter) at the end of the chain of Low horn and Frame drum.')).toBeVisible()
  const panel = bench(board, 'Close the filter')
  await lies(panel, '37.1', '41.1')
  await expect(stagesOf(board, 'Low horn').last()).toContainText('Closing')
  await expect(panel.getByRole('img', { name: /^Level over time/ })).toBeVisible({ timeout: 60_000 })
  await expect(panel.getByTestId('left')).toContainText('Dotted: without it.')

  // how far it goes is typed, for both rows at once
  await panel.getByLabel('Frequency of Closing, to').fill('300')
  await board.keyboard.press('Enter')
  await expect(panel.getByLabel('Frequency of Closing, to')).toHaveValue(/^300/)
  // a course is bent: another point, and a key on it
  const course = panel.getByRole('group', { name: 'How Close goes' })
  await course.dblclick({ position: { x: 56, y: 10 } })
  await expect(course.getByRole('slider')).toHaveCount(3)
  const before = Number(await course.getByRole('slider').nth(1).getAttribute('aria-valuenow'))
  await course.getByRole('slider').nth(1).press('ArrowDown')
  await expect(course.getByRole('slider').nth(1)).toHaveAttribute('aria-valuenow', String(before - 5))
  // one more thing moves in it
  await panel.getByRole('button', { name: 'Move something more…' }).click()
  const found = board.getByRole('listbox', { name: 'Parameters' })
  await expect(found.getByRole('option').first()).not.toContainText('moves already')
  await board.getByLabel('Search parameters').fill('frequency closing low horn')
  await expect(found.getByRole('option').first()).toContainText('moves already')
  await board.getByLabel('Search parameters').fill('pan low horn')
  await expect(found.getByRole('option').first()).toContainText('Pan')
  await board.keyboard.press('Enter')
  await expect(panel.getByRole('region', { name: 'Course Pan' })).toBeVisible()

  // copied to another boundary, it uses the same stages; only the last one takes them along
  await board.getByLabel('Menu of the passage').click()
  await board.getByRole('menuitem', { name: 'Copy it to the playhead' }).click()
  await expect(band(board, 'Close the filter')).toHaveCount(2)
  await board.getByLabel('Menu of the passage').click()
  await board.getByRole('menuitem', { name: 'Remove it with all it brought' }).click()
  await expect(band(board, 'Close the filter')).toHaveCount(1)
  await expect(stagesOf(board, 'Low horn').last()).toContainText('Closing')
  await band(board, 'Close the filter').click()
  await board.keyboard.press('Delete')
  await expect(band(board, 'Close the filter')).toHaveCount(0)
  await expect(stagesOf(board, 'Low horn').last()).not.toContainText('Closing')
  await board.keyboard.press('Control+z')
  await expect(band(board, 'Close the filter')).toHaveCount(1)
  await expect(stagesOf(board, 'Low horn').last()).toContainText('Closing')
})

test('a passage is auditioned, moved, given another tail, switched off and made plain', async ({ board }) => {
  await band(board, 'Held breath').click()
  const panel = bench(board, 'Held breath')
  await lies(panel, '29.1', '30.4')
  await panel.getByRole('button', { name: 'Audition' }).click()
  await expect(board.getByRole('button', { name: 'Loop around Held breath' })).toBeVisible()
  await expect(board.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await board.keyboard.press('Space')
  await band(board, 'Held breath').press('ArrowLeft')
  await lies(panel, '28.6.50', '30.3.50') // a sixteenth earlier
  await board.keyboard.press('Control+z')
  await lies(panel, '29.1', '30.4')
  // typed; what cannot be read is said, and changes nothing
  await panel.getByLabel('Begins at bar.beat').fill('28')
  await board.keyboard.press('Enter')
  await lies(panel, '28.1', '30.4')
  await panel.getByLabel('Ends at bar.beat').fill('soon')
  await board.keyboard.press('Enter')
  await expect(board.getByText('is no place in the song: write bar.beat, as 29.1')).toBeVisible()
  await lies(panel, '28.1', '30.4')
  await panel
    .getByLabel('Audition')
    .or(panel.getByRole('button', { name: 'Audition' }))
    .focus()
  await board.keyboard.press('Control+z')
  await lies(panel, '29.1', '30.4')
  await panel.getByLabel('Its tail').selectOption({ label: 'fades' })
  await expect(panel.getByLabel('Fades over')).toBeVisible()
  await panel.getByRole('button', { name: 'Out', exact: true }).click()
  await expect(panel.getByRole('button', { name: 'Out', exact: true })).toHaveAttribute('aria-pressed', 'true')
  await panel.getByRole('button', { name: 'In', exact: true }).click()
  await expect(panel.getByRole('button', { name: 'In', exact: true })).toHaveAttribute('aria-pressed', 'true')
  await board.getByLabel('Menu of the passage').click()
  await board.getByRole('menuitem', { name: 'Turn it into plain lines' }).click()
  await expect(band(board, 'Held breath')).toHaveCount(0)
  await row(board, 'Marimba').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('x')
  await expect(board.getByRole('group', { name: /^Line of Stop of Brake/ })).toBeVisible()
  await expect(stagesOf(board, 'Marimba').last()).toContainText('Brake')
})

test('what cannot be is refused in words', async ({ board }) => {
  await row(board, 'Low horn').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('Shift+L')
  await expect(board.getByText('Draw a range first, along the ruler or over rows with Shift: a passage is made of it.')).toBeVisible()
  await mark(board, 5, 9)
  await board.getByRole('button', { name: /^Make a passage/ }).click()
  const card = board.getByRole('dialog', { name: 'Make a passage' })
  await card.getByLabel('Low horn', { exact: true }).uncheck()
  await card.getByLabel('Main', { exact: true }).check()
  await card.getByRole('button', { name: /^Wash out into the return/ }).click()
  await expect(board.getByText('Main sends nowhere: choose the rows, not the main output')).toBeVisible()
})
