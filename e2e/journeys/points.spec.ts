import { expect, project, row, stagesOf, test } from '../support/shoal'

test('what is listened to is printed: a point in a chain comes onto a track of its own, muted', async ({ board, shoal }) => {
  await stagesOf(board, 'Tide table').nth(0).click()
  await board.keyboard.press('j')
  await board.getByRole('button', { name: 'Print it' }).click()
  const card = board.getByRole('dialog', { name: /^Print Tide table, after/ })
  await card.getByRole('button', { name: 'Print', exact: true }).click()
  const print = board.getByRole('group', { name: /^Tide table, after [^,]+$/ })
  await expect(print).toBeVisible({ timeout: 120_000 })
  const rows = (await project(board, shoal)).project.channels
  const at = rows.findIndex((c) => c.name === 'Tide table')
  expect(rows[at + 1]!.name).toMatch(/^Tide table, after/)
  expect(rows[at + 1]!.mute).toBe(true)
  await board.keyboard.press('Escape')
  await expect(board.getByText('You hear the whole mix')).toBeVisible()
})

test('a row is printed where it stands, as loud as it was, and sliced at once', async ({ board }) => {
  await row(board, 'Frame drum').click({ position: { x: 60, y: 12 } })
  await board.keyboard.press('p')
  const card = board.getByRole('dialog', { name: 'Print Frame drum' })
  await card.getByLabel('Where to').selectOption('here')
  await card.getByLabel('Level').selectOption('As loud as it was')
  await card.getByLabel('Slice it where sounds begin').check()
  await card.getByRole('button', { name: 'Print', exact: true }).click()
  await expect(board.getByText(/^Printed: \d+ clips\./)).toBeVisible({ timeout: 120_000 })
  const clips = row(board, 'Frame drum').locator('[data-clip]')
  await expect.poll(() => clips.count(), { timeout: 60_000 }).toBeGreaterThan(40)
})
