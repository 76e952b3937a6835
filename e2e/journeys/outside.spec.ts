import { writeFileSync } from 'node:fs'
import { expect, row, still, test } from '../support/shoal'
import { wav } from '../support/tone'

test('a clip goes out as a file, and lands where it belongs when it comes back', async ({ board }, info) => {
  await still(board)
  const clips = row(board, 'Low horn').locator('[data-clip]')
  await expect(clips).toHaveCount(3)
  await clips.first().click({ button: 'right' })
  await board.getByRole('menuitem', { name: 'Work on it elsewhere: a file' }).click()
  const save = board.getByRole('button', { name: 'Save the file' })
  await expect(save).toBeVisible({ timeout: 60_000 })
  const down = board.waitForEvent('download')
  await save.click()
  const file = info.outputPath('horn, cleaned.wav')
  await (await down).saveAs(file)
  await board.getByLabel('Import sound').setInputFiles(file)
  await expect(board.getByText('horn, cleaned.wav is back on Low horn, over what was there.')).toBeVisible({ timeout: 60_000 })
  await expect(clips).toHaveCount(4)
  const back = row(board, 'Low horn').getByRole('group', { name: /^Low horn, worked on outside.* selected/ })
  const [a, b] = [(await clips.first().boundingBox())!, (await back.boundingBox())!]
  expect(Math.abs(a.x - b.x)).toBeLessThan(2)
  expect(Math.abs(a.width - b.width)).toBeLessThan(2)
  await board.keyboard.press('t')
  const steps = board.getByRole('dialog', { name: 'Where it comes from' }).locator('[data-state]')
  await expect(steps.first()).toContainText('Worked on outside, from Low horn')
  await expect(steps.last()).toContainText('the first sound')
})

test('a file from elsewhere becomes a track of its own', async ({ board }, info) => {
  const file = info.outputPath('tone.wav')
  writeFileSync(file, wav(48000, 1))
  await board.getByLabel('Import sound').setInputFiles(file)
  await expect(board.getByText('tone.wav is a track now.')).toBeVisible({ timeout: 30_000 })
  await expect(row(board, 'tone')).toBeVisible()
})
