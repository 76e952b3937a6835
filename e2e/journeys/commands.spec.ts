import { expect, stagesOf, test } from '../support/shoal'

test('everything that can be done is found by words, also mistyped, and done', async ({ board }) => {
  const list = board.getByRole('listbox', { name: 'Commands' })
  const find = async (text: string) => {
    await board.keyboard.press(';')
    await board.getByLabel('Search commands').fill(text)
  }
  await find('go to choir')
  await expect(list.getByRole('option', { name: /Go to Choir/ }).first()).toBeVisible()
  await board.keyboard.press('Enter')
  await expect(board.getByRole('heading', { name: 'Choir', exact: true }).first()).toBeVisible()

  const before = await stagesOf(board, 'Choir').count()
  await find('add revreb')
  await expect(list.getByRole('option', { selected: true })).toHaveText(/Add Reverb\s*Choir/)
  await board.keyboard.press('Enter')
  await expect(stagesOf(board, 'Choir')).toHaveCount(before + 1)

  await find('night chart')
  await board.keyboard.press('Enter')
  await expect(board.locator('html')).toHaveAttribute('data-theme', /night/)

  await find('qqzzxx')
  await expect(board.getByText('Nothing goes by “qqzzxx”.')).toBeVisible()
  await board.keyboard.press('Escape')
  await expect(list).toBeHidden()
})
