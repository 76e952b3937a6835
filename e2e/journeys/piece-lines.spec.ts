import type { Page } from '@playwright/test'
import { expect } from '../support/expect'
import { row, stagesOf, still, test } from '../support/shoal'

const clips = (page: Page, name: string) => row(page, name).locator('[data-clip]')
const bench = (page: Page) => page.getByRole('region', { name: 'Bench' })

test('a line moves a stage of a clip, in the time of the clip', async ({ board }) => {
  await still(board)
  const horn = clips(board, 'Low horn').nth(1)
  await horn.click()
  await board.keyboard.press('/')
  await board.getByRole('textbox', { name: 'Search effects' }).fill('saturation')
  const outline = board.waitForResponse((r) => r.url().endsWith('/outline') && r.status() === 200)
  await board.keyboard.press('Enter')
  await expect(bench(board).getByRole('group', { name: /^Saturation on/ })).toBeVisible()
  await outline // what the treatment makes of it is drawn
  await board.keyboard.press('Shift+X')
  await expect(board.getByText('What moves in the treatment')).toBeVisible()
  await board.keyboard.type('drive')
  await expect(board.getByRole('option', { name: /^Drive/, selected: true })).toBeVisible()
  await board.keyboard.press('Enter')
  const line = row(board, 'Low horn').getByRole('group', { name: /^Line of Drive of Saturation on Low horn/ })
  await expect(line).toHaveAccessibleName(/0 points/)
  const at = (await horn.boundingBox())!
  const strip = (await line.boundingBox())!
  await board.mouse.dblclick(at.x + at.width * 0.2, strip.y + 40)
  await expect(line).toHaveAccessibleName(/1 point/)
  await board.mouse.dblclick(at.x + at.width * 0.6, strip.y + 8)
  await expect(line).toHaveAccessibleName(/2 points/)
  const point = line.locator('path').last()
  const x = async () => (await point.boundingBox())!.x - (await horn.boundingBox())!.x
  const before = await x()
  // it goes where the clip goes
  await horn.focus()
  await board.keyboard.press('ArrowRight')
  await expect.poll(async () => (await horn.boundingBox())!.x).toBeGreaterThan(at.x)
  await expect.poll(async () => Math.abs((await x()) - before)).toBeLessThan(2)
  // and what is worked out cannot move
  await board.keyboard.press('Control+z')
  await horn.click()
  await board.keyboard.press('/')
  await board.getByRole('textbox', { name: 'Search effects' }).fill('backwards')
  await board.keyboard.press('Enter')
  await expect(board.getByText(/a line cannot move Saturation/)).toBeVisible()
})

test('a preset is dragged onto a clip, and onto a chain', async ({ board }) => {
  await still(board)
  await stagesOf(board, 'Choir').first().click()
  await bench(board).getByRole('button', { name: 'Presets' }).last().click()
  const preset = board.getByRole('listbox', { name: 'Presets' }).getByRole('option').first()
  const name = await preset.locator('span').first().textContent()
  await preset.dragTo(clips(board, 'Bell buoy').first())
  await expect(clips(board, 'Bell buoy').first()).toHaveAttribute('title', /Treated: Equaliser/)
  await expect(bench(board).getByText('its own treatment')).toBeVisible()
  await board.keyboard.press('Control+z')
  await expect(clips(board, 'Bell buoy').first()).not.toHaveAttribute('title', /Treated/)
  expect(name).toBeTruthy()
})

test('a range meets where a sound begins, and selects what it touches', async ({ board }) => {
  await still(board)
  const drum = clips(board, 'Frame drum').first()
  const at = (await drum.boundingBox())!
  const found = board.waitForResponse((r) => r.url().endsWith('/clips/marks') && r.ok())
  const draw = async (from: number, to: number) => {
    await board.keyboard.down('Shift')
    await board.mouse.move(at.x + from, at.y + 8)
    await board.mouse.down()
    await board.mouse.move(at.x + to, at.y + 8, { steps: 5 })
  }
  await draw(20, 50)
  const marks = ((await (await found).json()) as { marks: { at: number; strength: number }[]; usual: number }).marks
  await board.mouse.up()
  await board.keyboard.up('Shift')
  expect(marks.length).toBeGreaterThan(4)

  await board.keyboard.down('Control')
  await draw(-4, 12)
  await board.mouse.up()
  await board.keyboard.up('Shift')
  await board.keyboard.up('Control')
  await expect(row(board, 'Frame drum').getByRole('group', { name: /a clip, selected/ })).toHaveCount(1)
  await expect(row(board, 'Frame drum').getByRole('img', { name: 'Range' })).toHaveCount(0)
})
