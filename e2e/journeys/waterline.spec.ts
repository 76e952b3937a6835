import { expect, row, stagesOf, still, test } from '../support/shoal'

test('what stands before a line is printed behind the music, runs when it is touched, and is printed anew', async ({ board }) => {
  await still(board)
  const bell = row(board, 'Bell buoy')
  await stagesOf(board, 'Bell buoy').nth(1).click()
  await board.keyboard.press('p')
  const line = bell.getByRole('slider', { name: 'Line of Bell buoy' })
  await expect(line).toBeVisible()
  const says = board.getByTestId('line-says')
  await expect(says).toContainText('printed, holds', { timeout: 60_000 })
  await expect(line).toHaveAttribute('aria-valuetext', /printed as far as Under the pier: holds/)

  // played, its stages do not run: there is no level between them, and one behind the line
  const depth = bell.locator('.depth').nth(1) // behind its equaliser
  await board.keyboard.press('Space')
  await expect(board.getByTestId('load')).not.toHaveText('–', { timeout: 20_000 })
  await expect(depth).toHaveText('–')

  // a hand on a stage before it: it runs
  await stagesOf(board, 'Bell buoy').first().click()
  const gain = board
    .getByRole('group', { name: /on Bell buoy$/ })
    .getByRole('slider', { name: 'Gain' })
    .first()
  await gain.focus()
  await board.keyboard.press('ArrowRight')
  await expect(depth).not.toHaveText('–', { timeout: 20_000 })
  await expect(says).toContainText('it runs')
  await expect(says).toContainText('printed, holds', { timeout: 60_000 })
  await expect(depth).toHaveText('–', { timeout: 20_000 })
  await board.keyboard.press('Space')

  // moved by keys, and lifted
  await line.focus()
  await board.keyboard.press('ArrowLeft')
  await expect(line).toHaveAttribute('aria-valuetext', /as far as Equaliser/)
  await line.focus()
  await board.keyboard.press('Delete')
  await expect(line).toHaveCount(0)
  await expect(says).toHaveCount(0)
})
