import { join } from 'node:path'
import { row, stagesOf, test } from '../support/shoal'

const folder = join(import.meta.dirname, '../../docs/screenshots')

test('one picture of each main view, from the demo', async ({ board }) => {
  const shoot = (name: string) => board.screenshot({ path: join(folder, `${name}.png`) })
  await board.getByRole('button', { name: 'Flood' }).click()
  await stagesOf(board, 'Marimba').nth(0).click()
  await board.keyboard.press('Space')
  await board.waitForTimeout(5000)
  await shoot('board-day')
  await board.keyboard.press('3')
  await board.keyboard.press('g')
  await row(board, 'Stone hall').locator('[data-stage]').nth(1).click()
  await board.waitForTimeout(1500)
  await shoot('board-night-high')
  await board.keyboard.press('/')
  await board.getByLabel('Search effects').fill('ec')
  await shoot('effects')
})
