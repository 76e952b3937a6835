import { expect, row, stagesOf, still, test } from '../support/shoal'

test('a print says where it comes from and what has changed since, and is printed again', async ({ board }) => {
  await still(board)
  const clip = row(board, 'Low horn').locator('[data-clip]').first()
  await clip.click()
  await board.keyboard.press('p')
  await expect(board.getByText(/It comes in behind the chain/)).toBeVisible({ timeout: 60_000 })
  await board.keyboard.press('t')
  const card = board.getByRole('dialog', { name: 'Where it comes from' })
  const steps = card.locator('[data-state]')
  await expect(steps).toHaveCount(2)
  await expect(steps.first()).toContainText(/Round 1 of Low horn, through Compressor/)
  await expect(steps.first()).toContainText('Ada')
  await expect(steps.first()).toHaveAttribute('data-state', 'holds')
  await expect(steps.last()).toContainText('the first sound')

  // something on its row is changed
  await card.getByRole('button', { name: 'Go to Low horn' }).click()
  await stagesOf(board, 'Low horn').first().click()
  const threshold = board.getByRole('group', { name: /^Compressor on Low horn/ }).getByRole('slider', { name: 'Threshold', exact: true })
  await threshold.focus()
  await board.keyboard.press('PageDown')
  await clip.click()
  await board.keyboard.press('t')
  await expect(steps.first()).toHaveAttribute('data-state', 'changed', { timeout: 20_000 })
  await expect(steps.first()).toContainText(/Since then: Compressor: threshold .* to .* dB \(Ada/)

  // then and now are heard one against the other
  await card.getByRole('button', { name: 'Hear then and now' }).click()
  await expect(card.getByRole('button', { name: 'Then' })).toHaveAttribute('aria-pressed', 'true', { timeout: 60_000 })
  await card.getByRole('button', { name: 'Now', exact: true }).click()
  await expect(card.getByRole('button', { name: 'Now', exact: true })).toHaveAttribute('aria-pressed', 'true')
  await card.getByRole('button', { name: 'Stop' }).click()

  // printed again it holds, where it is
  await card.getByRole('button', { name: 'Print again' }).click()
  await expect(steps.first()).toHaveAttribute('data-state', 'holds', { timeout: 60_000 })
})

test('the demo has a print that has changed; its chain is put back, and it holds', async ({ board }) => {
  await still(board)
  await row(board, 'Harbour').locator('[data-clip]').last().click()
  await board.keyboard.press('t')
  const first = board.getByRole('dialog', { name: 'Where it comes from' }).locator('[data-state]').first()
  await expect(first).toContainText('Ines')
  await expect(first).toContainText('Since then: Slow water: frequency')
  await first.getByRole('button', { name: 'Put the chain back' }).click()
  await expect(first).toHaveAttribute('data-state', 'holds', { timeout: 20_000 })
  await board.keyboard.press('Control+z')
  await expect(first).toHaveAttribute('data-state', 'changed', { timeout: 20_000 })
})
