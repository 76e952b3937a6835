import type { Page } from '@playwright/test'
import { expect } from '../support/expect'
import { row, still, test } from '../support/shoal'

const clips = (page: Page, name: string) => row(page, name).locator('[data-clip]')
const bench = (page: Page) => page.getByRole('region', { name: 'Bench' })
const panel = (page: Page, name: RegExp) => bench(page).getByRole('group', { name })

async function treat(page: Page, effect: string) {
  await page.keyboard.press('/')
  await page.getByRole('textbox', { name: 'Search effects' }).fill(effect)
  await page.keyboard.press('Enter')
}

/** Waits until nothing of a row is being worked out any more. */
const worked = (page: Page, name: string) => expect(row(page, name).getByRole('progressbar')).toHaveCount(0, { timeout: 30_000 })

async function pickFrom(page: Page, menu: RegExp, item: string) {
  await bench(page).getByRole('button', { name: menu }).click()
  await page.getByRole('menuitem', { name: item, exact: true }).click()
}

test('a bell is played backwards and twice as long, and brought to whole bars', async ({ board }) => {
  await still(board)
  const bell = clips(board, 'Bell buoy').first()
  await bell.click()
  await pickFrom(board, /^Menu of Bell buoy/, 'Play it backwards')
  await expect(panel(board, /^Backwards on Bell buoy/)).toBeVisible()
  await worked(board, 'Bell buoy')
  await expect(bell).toHaveAttribute('title', /Treated: Backwards$/)
  const before = (await bell.boundingBox())!.width
  await treat(board, 'length')
  const length = panel(board, /^Length on Bell buoy/).getByRole('slider', { name: /^Length/ })
  await length.focus()
  await board.keyboard.press('Enter')
  await board.keyboard.type('150')
  await board.keyboard.press('Enter')
  await expect.poll(async () => (await bell.boundingBox())!.width).toBeGreaterThan(before * 1.4)
  await worked(board, 'Bell buoy')
  await bench(board).getByTitle('The clip itself').click()
  await pickFrom(board, /^Menu of Bell buoy/, 'Fit it to whole bars')
  await bell.click()
  const seconds = async () =>
    parseFloat(
      (await panel(board, /^Bell buoy/)
        .getByText(/ s on Bell buoy/)
        .textContent())!,
    )
  // a bar of six eighths at 88 lasts 45/22 s
  await expect.poll(async () => Math.abs(((await seconds()) * 22) / 45 - Math.round(((await seconds()) * 22) / 45))).toBeLessThan(0.01)
  for (let i = 0; i < 4; i++) await board.keyboard.press('Control+z')
  await expect.poll(async () => (await bell.boundingBox())!.width).toBeCloseTo(before, 0)
})

test('a treatment is made permanent and brought back', async ({ board }) => {
  await still(board)
  await clips(board, 'Tide table').first().click()
  await treat(board, 'pitch')
  await expect(panel(board, /^Pitch on Tide table/)).toBeVisible()
  await worked(board, 'Tide table')
  await pickFrom(board, /^Menu of the treatment/, 'Make it permanent')
  await expect(panel(board, /^Tide table/).getByText(/^made permanent/)).toBeVisible({ timeout: 30_000 })
  await expect(bench(board).getByText('No treatment yet')).toBeVisible()
  await pickFrom(board, /^Menu of the treatment/, 'Bring back what it was made from')
  await expect(bench(board).getByRole('button', { name: /^Pitch, place 1/ })).toBeVisible()
  await expect(panel(board, /^Tide table/).getByText(/^made permanent/)).toHaveCount(0)
})

test('what is worked out waits to be asked for, where somebody wants that', async ({ board }) => {
  await still(board)
  await clips(board, 'Low horn').first().click()
  await pickFrom(board, /^Menu of the treatment/, 'Work out only when asked')
  await treat(board, 'backwards')
  await expect(bench(board).getByText('changed: what was before is heard')).toBeVisible()
  await bench(board).getByRole('button', { name: 'Work it out' }).click()
  await worked(board, 'Low horn')
  await expect(bench(board).getByText('what was before is heard')).toHaveCount(0)
})

test('on a row it is said where whole-sound steps stand', async ({ board }) => {
  await row(board, 'Choir').click({ position: { x: 60, y: 12 } })
  await board.keyboard.press('/')
  await board.getByRole('textbox', { name: 'Search effects' }).fill('backwards')
  const list = board.getByRole('listbox', { name: 'Effects' })
  await expect(list.getByRole('option', { name: /^Reverse/ })).toBeVisible()
  await expect(list.getByRole('option', { name: /^Backwards/ })).toHaveCount(0)
  await board.getByRole('textbox', { name: 'Search effects' }).fill('semitones')
  await expect(list.getByText(/needs the whole sound: select a clip/)).toBeVisible()
})

test('a fade lasts a note, a treated word is heard without its treatment as loud, and comes in behind the chain', async ({ board }) => {
  await still(board)
  await clips(board, 'Tide table').nth(1).click()
  const clip = panel(board, /^Tide table/)
  const fade = clip.getByRole('slider', { name: /^Fade in of/ })
  await fade.focus()
  await board.keyboard.press('Enter')
  await board.keyboard.type('1/8')
  await board.keyboard.press('Enter')
  await expect(fade).toHaveAttribute('aria-valuetext', /^341 ms/) // at 88 quarters a minute
  await bench(board).getByRole('combobox', { name: 'Comes into its row' }).selectOption('behind')
  await expect(bench(board).getByRole('combobox', { name: 'Comes into its row' })).toHaveValue('behind')
  await treat(board, 'saturation')
  const without = bench(board).getByRole('button', { name: 'Without, as loud' })
  await without.click()
  await expect(without).toHaveAttribute('aria-pressed', 'true')
  await expect(bench(board).getByRole('button', { name: /^Saturation, place 1/ })).toBeVisible()
  await without.click()
  await expect(without).toHaveAttribute('aria-pressed', 'false')
})

test('the other button opens what can be done to a clip, a stage and a row', async ({ board }) => {
  await still(board)
  await clips(board, 'Low horn')
    .nth(1)
    .click({ button: 'right', position: { x: 60, y: 8 } })
  await expect(board.getByRole('menuitem', { name: 'Play it backwards' })).toBeVisible()
  await board.getByRole('menuitem', { name: 'Once more behind itself' }).click()
  await expect(clips(board, 'Low horn')).toHaveCount(4)
  await board.keyboard.press('Control+z')
  await expect(clips(board, 'Low horn')).toHaveCount(3)
  await row(board, 'Low horn').locator('[data-stage]').first().click({ button: 'right' })
  await board.getByRole('menuitem', { name: 'Remove' }).click()
  await expect(row(board, 'Low horn').getByRole('button', { name: /^Compressor/ })).toHaveCount(0)
  await board.keyboard.press('Control+z')
  await expect(row(board, 'Low horn').getByRole('button', { name: /^Compressor/ })).toBeVisible()
  await row(board, 'Choir').getByText('Choir', { exact: true }).first().click({ button: 'right' })
  await board.getByRole('menuitem', { name: 'Rename' }).click()
  await expect(row(board, 'Choir').getByRole('textbox')).toBeFocused()
})

test('a clip is printed where it stands, round after round, and goes back round by round', async ({ board }) => {
  await still(board)
  await clips(board, 'Bell buoy').first().click()
  await board.keyboard.press('p')
  const print = panel(board, /^Bell buoy Ebb, .* on Bell buoy$/)
  await expect(print.getByText(/^a print/)).toBeVisible({ timeout: 60_000 })
  await expect(bench(board).getByRole('combobox', { name: 'Comes into its row' })).toHaveValue('behind')
  await treat(board, 'backwards')
  await expect(panel(board, /^Backwards on Bell buoy Ebb/)).toBeVisible()
  await bench(board).getByTitle('The clip itself').click()
  await board.keyboard.press('p')
  await expect(panel(board, /^Bell buoy Ebb, .* 2 on Bell buoy$/)).toBeVisible({ timeout: 60_000 })
  await pickFrom(board, /^Menu of Bell buoy Ebb/, 'One round back')
  await expect(row(board, 'Bell buoy').getByRole('group', { name: /^Bell buoy Ebb, [^2]*, a clip/ })).toBeVisible()
  await board.keyboard.press('Control+z')
  await board.keyboard.press('Control+z')
  await board.keyboard.press('Control+z')
  await board.keyboard.press('Control+z')
  await expect(row(board, 'Bell buoy').getByRole('group', { name: /^Bell buoy Ebb, a clip/ })).toBeVisible()
})
