import { expect, type Page } from '@playwright/test'
import { row, still, test } from '../support/shoal'

const clips = (page: Page, name: string) => row(page, name).locator('[data-clip]')
const panel = (page: Page, name: RegExp) => page.getByRole('region', { name: 'Bench' }).getByRole('group', { name })

/** Draws a range over a row, from one part of a clip's width to another, down to another row. */
async function draw(page: Page, from: string, to: string, clip: number, a: number, b: number) {
  const at = (await clips(page, from).nth(clip).boundingBox())!
  const below = (await row(page, to).boundingBox())!
  await page.keyboard.down('Shift')
  await page.mouse.move(at.x + a * at.width, at.y + 8)
  await page.mouse.down()
  await page.mouse.move(at.x + b * at.width, below.y + 8, { steps: 6 })
  await page.mouse.up()
  await page.keyboard.up('Shift')
}

test('a range over two rows is cut out, muted, and joined again', async ({ board }) => {
  await still(board)
  await expect(clips(board, 'Frame drum').nth(1)).toBeVisible()
  const before = await clips(board, 'Frame drum').count()
  await draw(board, 'Low horn', 'Frame drum', 1, 0.3, 0.6)
  await expect(row(board, 'Frame drum').getByRole('img', { name: 'Range' })).toBeVisible()
  await board.keyboard.press('i')
  await expect(clips(board, 'Frame drum')).toHaveCount(before + 2)
  await board.keyboard.press('Enter')
  await expect(panel(board, /^\d clips on/)).toBeVisible()
  await board.keyboard.press('q')
  await expect(row(board, 'Frame drum').getByRole('group', { name: /a clip, muted, selected/ })).toBeVisible()
  await board.keyboard.press('q')
  await clips(board, 'Frame drum').nth(1).click()
  await clips(board, 'Frame drum')
    .nth(2)
    .click({ modifiers: ['Control'] })
  await clips(board, 'Frame drum')
    .nth(3)
    .click({ modifiers: ['Control'] })
  await board.keyboard.press('Shift+I')
  await expect(clips(board, 'Frame drum')).toHaveCount(before)
})

test('an edge is dragged, and comes back with undo', async ({ board }) => {
  await still(board)
  const clip = clips(board, 'Bell buoy').first()
  await clip.click()
  const length = panel(board, /^Bell buoy .* on Bell buoy/)
  const said = await length.getByText(/ s on Bell buoy/).textContent()
  const at = (await clip.boundingBox())!
  await board.mouse.move(at.x + at.width - 3, at.y + 10)
  await board.mouse.down()
  await board.mouse.move(at.x + at.width * 0.6, at.y + 10, { steps: 5 })
  await board.mouse.up()
  await expect(length.getByText(/ s on Bell buoy/)).not.toHaveText(said!)
  await expect.poll(async () => (await clip.boundingBox())!.width).toBeLessThan(at.width * 0.75)
  await board.keyboard.press('Control+z')
  await expect(length.getByText(/ s on Bell buoy/)).toHaveText(said!)
})

test('a clip is brought to a level, faded and swelled', async ({ board }) => {
  await still(board)
  await clips(board, 'Tide table').nth(1).click()
  const bench = panel(board, /on Tide table$/)
  await expect(bench.getByText(/^Peak −/)).toBeVisible()
  await bench.getByRole('combobox', { name: 'Measure' }).selectOption('peak')
  await bench.getByRole('textbox', { name: 'Level' }).fill('-6')
  await bench.getByRole('button', { name: 'Normalise' }).click()
  await expect(bench.getByText(/^Peak −6.0/)).toBeVisible()
  await board.keyboard.press('Shift+ArrowDown')
  await row(board, 'Tide table').scrollIntoViewIfNeeded()
  const fade = row(board, 'Tide table').getByRole('slider', { name: /^Fade in of/ })
  await fade.focus()
  await board.keyboard.press('ArrowRight')
  await expect(bench.getByRole('slider', { name: /^Fade in of/ })).toHaveAttribute('aria-valuetext', /^1\d ms/)
  const swell = row(board, 'Tide table').getByRole('group', { name: /^Swell of/ })
  const at = (await clips(board, 'Tide table').nth(1).boundingBox())!
  await board.mouse.dblclick(at.x + at.width / 2, at.y + at.height / 4)
  await expect(swell.getByRole('slider', { name: /^Swell point 1/ })).toBeVisible()
})
