import AxeBuilder from '@axe-core/playwright'
import { parts } from '../support/session'
import { expect, row, stagesOf, test } from '../support/shoal'

test('rows are added, named, duplicated with everything on them, hidden, moved and removed', async ({ board }) => {
  await board.getByRole('button', { name: 'Add a track' }).click()
  const name = board.getByLabel('Name of the row')
  await name.fill('Rope')
  await name.press('Enter')
  await expect(row(board, 'Rope')).toBeVisible()
  await board.keyboard.press('Alt+ArrowUp')
  await expect(board.locator('[data-row]').nth(9)).toHaveAttribute('aria-label', 'Rope')
  await row(board, 'Choir').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('c')
  await expect(stagesOf(board, 'Choir 2')).toHaveCount(3)
  await expect(row(board, 'Choir 2').locator('[data-fork]')).toHaveCount(1)
  await expect(row(board, 'Choir 2').getByTitle(/^Send to Stone hall/)).toBeVisible()
  await row(board, 'Choir 2').getByLabel('Menu of Choir 2').click()
  await board.getByRole('menuitem', { name: 'Hide' }).click()
  await expect(row(board, 'Choir 2')).toHaveCount(0)
  await board.getByRole('button', { name: 'Show 1 hidden' }).click()
  await row(board, 'Choir 2').getByLabel('Menu of Choir 2').click()
  await board.getByRole('menuitem', { name: 'Remove', exact: true }).click()
  await expect(row(board, 'Choir 2')).toHaveCount(0)
  await board.keyboard.press('Control+z')
  await expect(board.getByText('Undone: Remove Choir 2')).toBeVisible()
})

test('mute, solo and a send: its level, tap and mute', async ({ board }) => {
  await row(board, 'Marimba').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('q')
  await expect(board.getByLabel('Mute Marimba')).toHaveAttribute('aria-pressed', 'true')
  await board.keyboard.press('h')
  await expect(board.getByLabel('Solo Marimba')).toHaveAttribute('aria-pressed', 'true')
  await row(board, 'Harbour').click({ position: { x: 20, y: 8 } })
  await board.getByRole('button', { name: 'Send to', exact: true }).click()
  await board.getByRole('menuitem', { name: 'Stone hall' }).click()
  const level = board.getByRole('slider', { name: 'Send level', exact: true })
  await expect(level).toHaveAttribute('aria-valuenow', '-12')
  await level.focus()
  await board.keyboard.press('0')
  await expect(level).toHaveAttribute('aria-valuenow', '0')
  const tap = board.getByLabel('Where the send from Harbour to Stone hall is taken')
  await expect(tap).toHaveValue('post')
  await tap.selectOption({ label: 'before the fader' })
  await expect(tap).toHaveValue('pre')
})

test('the tide turns all rows and leaves their order alone; both themes are legible', async ({ board }) => {
  const order = () => board.locator('[data-row]').evaluateAll((l) => l.map((e) => e.getAttribute('aria-label')))
  const before = await order()
  await board.keyboard.press('3')
  await expect(board.getByText('stages, in order')).toBeVisible()
  expect(await order()).toEqual(before)
  await board.keyboard.press('1')
  await expect(board.locator('[data-stage]')).toHaveCount(0)
  await board.keyboard.press('2')
  await stagesOf(board, 'Marimba').nth(1).click()
  for (const theme of ['day', 'night']) {
    if (theme === 'night') await board.keyboard.press('g')
    await expect(board.locator('html')).toHaveAttribute('data-theme', theme)
    // colours that are on their way to others are those of neither theme
    await expect.poll(() => board.evaluate(() => document.getAnimations().filter((x) => x instanceof CSSTransition).length)).toBe(0)
    const found = await new AxeBuilder({ page: board }).withTags(['wcag2a', 'wcag2aa', 'wcag22aa']).analyze()
    expect(found.violations.map((v) => `${theme}: ${v.id} ${v.nodes[0]?.html.slice(0, 160)}`)).toEqual([])
  }
  await board.keyboard.press('?')
  await expect(board.getByRole('heading', { name: 'Keys' })).toBeVisible()
})

test('the page fits 1280 by 800 without scrolling', async ({ board }) => {
  const over = await board.evaluate(() => [
    document.documentElement.scrollWidth - innerWidth,
    document.documentElement.scrollHeight - innerHeight,
  ])
  expect(over).toEqual([0, 0])
})

test('of very many rows those out of sight are not drawn, and yet found, reached by keys, and changed', async ({ board, shoal }) => {
  const { channel, stage, post } = await parts(board, shoal, -30)
  const rows = Array.from({ length: 80 }, (_, i) => channel('track', `Float ${i}`, [stage('trim')]))
  await post(
    'Rows',
    rows.map((channel, index) => ({ type: 'channel.add', do: { channel, index } })),
  )
  await expect(row(board, 'Float 0')).toBeVisible()
  await expect(row(board, 'Float 79')).toHaveCount(0)
  // found by words, it comes into sight; the first one leaves the page
  await board.keyboard.press(';')
  await board.getByLabel('Search commands').fill('go to float 79')
  await expect(board.getByRole('option', { name: /Go to Float 79/ }).first()).toHaveAttribute('aria-selected', 'true')
  await board.keyboard.press('Enter')
  await expect(row(board, 'Float 79')).toBeInViewport({ ratio: 1 })
  await expect(row(board, 'Float 0')).toHaveCount(0)
  // what its menu offers is found by words also when it is scrolled out of sight
  await row(board, 'Float 79').hover()
  await board.mouse.wheel(0, -6000)
  await expect(row(board, 'Float 0')).toBeInViewport({ ratio: 1 })
  await expect(row(board, 'Float 79')).toHaveCount(0)
  await board.keyboard.press(';')
  await board.getByLabel('Search commands').fill('make it')
  await expect(board.getByRole('option', { name: /Make it (mono|stereo)\s*Float 79/ })).toBeVisible()
  await board.keyboard.press('Escape')
  // the keys lead on from there, and back into sight
  await board.keyboard.press('ArrowUp')
  await expect(row(board, 'Float 78')).toBeInViewport({ ratio: 1 })
  await board.keyboard.press('q')
  await expect(board.getByRole('button', { name: 'Mute Float 78', exact: true })).toHaveAttribute('aria-pressed', 'true')
})
