import type { Page } from '@playwright/test'
import { expect, row, stagesOf, test } from '../support/shoal'

const pick = (board: Page, name: string) => row(board, name).click({ position: { x: 20, y: 8 } })
const panel = (board: Page, name: string) => board.getByRole('group', { name: `Routing of ${name}` })
/** The level at a point, as the page hears it; -120 while nothing is known. */
const level = (board: Page, kind: string, name: string) =>
  board.evaluate(
    ([kind, name]) => {
      const id = document.querySelector<HTMLElement>(`[data-row][aria-label="${name}"]`)!.dataset.row!
      const e = (globalThis as unknown as { shoalEngine: { heard(): { peaks: Map<string, [number, number]> } | null } }).shoalEngine
      return Math.max(...(e.heard()?.peaks.get(`${kind} ${id}`) ?? [-120, -120]))
    },
    [kind, name] as const,
  )

test('a return is made from a send in one gesture, and heard', async ({ board }) => {
  await pick(board, 'Marimba')
  await board.keyboard.press('s')
  const card = board.getByRole('dialog', { name: 'Send Marimba to' })
  await card.getByRole('textbox').fill('Mill race')
  await card.getByLabel('Effect on the return').selectOption('delay')
  await card.getByRole('button', { name: 'Make the return and the send' }).click()
  await expect(stagesOf(board, 'Mill race')).toHaveCount(1)
  await expect(panel(board, 'Mill race').getByText('1 send come', { exact: false })).toBeVisible()
  await board.keyboard.press('Space')
  await expect.poll(() => level(board, 'post', 'Mill race'), { timeout: 20_000 }).toBeGreaterThan(-60)
  await board.keyboard.press('Space')
  // one undo takes return and send away again
  await board.keyboard.press('Control+z')
  await expect(row(board, 'Mill race')).toHaveCount(0)
  await expect(row(board, 'Marimba').getByTitle(/^Send to Mill race/)).toHaveCount(0)
  // a preset drops in whole, under its own name
  await pick(board, 'Marimba')
  await board.keyboard.press('s')
  await card.getByLabel('Effect on the return').selectOption({ label: 'Cistern' })
  await card.getByRole('button', { name: 'Make the return and the send' }).click()
  await expect(row(board, 'Cistern')).toBeVisible()
})

test('a stage becomes a send and a return, and comes back', async ({ board }) => {
  await stagesOf(board, 'Marimba').nth(2).click()
  await board.getByLabel('Menu of the stage').click()
  await board.getByRole('menuitem', { name: 'Make it a send and a return' }).click()
  await expect(stagesOf(board, 'Dotted echo')).toHaveCount(1)
  await expect(stagesOf(board, 'Marimba')).toHaveCount(3)
  await pick(board, 'Marimba')
  await board.getByLabel('Menu of the send from Marimba to Dotted echo').click()
  await board.getByRole('menuitem', { name: 'Bring it back as a stage here' }).click()
  await expect(stagesOf(board, 'Marimba')).toHaveCount(4)
  await expect(row(board, 'Dotted echo')).toHaveCount(0)
})

test('rows are grouped, folded, nested and dissolved; a loop is refused with its way', async ({ board }) => {
  await board.getByRole('button', { name: 'Marimba', exact: true }).click()
  await board.getByRole('button', { name: 'Handbells', exact: true }).click({ modifiers: ['Control'] })
  await board.keyboard.press('a')
  const name = board.getByLabel('Name of the row')
  await name.fill('Struck')
  await name.press('Enter')
  await expect(panel(board, 'Struck').getByText('2 rows come in')).toBeVisible()
  await board.getByLabel('Fold Struck').click()
  await expect(row(board, 'Handbells')).toHaveCount(0)
  await board.getByLabel('Unfold Struck').click()
  await expect(row(board, 'Handbells')).toBeVisible()
  await pick(board, 'Choir')
  await panel(board, 'Choir').getByLabel('Output').selectOption({ label: 'none' })
  await expect(row(board, 'Choir').getByText('nowhere')).toBeVisible()
  // Far echo comes back into the choir: the refusal names the way
  await panel(board, 'Choir').getByLabel('Takes in').selectOption({ label: 'Far echo' })
  await expect(board.getByText(/the signal would feed itself: Choir > (Stone hall > )?Far echo > Choir/)).toBeVisible()
  await board.getByRole('button', { name: 'Struck', exact: true }).click()
  await panel(board, 'Struck').getByRole('button', { name: 'Dissolve the group' }).click()
  await expect(row(board, 'Struck')).toHaveCount(0)
})

test('a send is taken anywhere, copied, balanced from its return, and its path is lit', async ({ board }) => {
  await pick(board, 'Harbour')
  await board.getByRole('button', { name: 'Send to Far echo' }).click()
  await board.getByLabel('Where the send from Harbour to Far echo is taken').selectOption({ label: 'after Equaliser' })
  await expect(row(board, 'Harbour').getByTitle(/^Send to Far echo, after Equaliser/)).toBeVisible()
  await board.getByLabel('Menu of the send from Harbour to Far echo').click()
  await board.getByRole('menuitem', { name: 'Copy to all tracks, silent' }).click()
  await expect(row(board, 'Low horn').getByRole('button', { name: '+1', exact: true })).toBeVisible()
  await pick(board, 'Far echo')
  const strip = panel(board, 'Far echo').getByRole('slider', { name: 'Sent by Low horn' })
  await expect(strip).toHaveAttribute('aria-valuenow', '-120')
  await strip.focus()
  await board.keyboard.press('0')
  await expect(strip).toHaveAttribute('aria-valuenow', '0')
  await expect(board.getByTestId('lit-path')).toBeVisible()
  await expect(row(board, 'Low horn').locator('[data-lit=feeds]')).toHaveCount(1)
  await expect(row(board, 'Main').locator('[data-lit=fed]')).toHaveCount(1)
  await pick(board, 'Low horn')
  await board.keyboard.press('t')
  await expect(board.getByTestId('trace')).toContainText('ways lead from Low horn to Main')
})

test('sends of several rows are set together, and one is dragged to another row', async ({ board }) => {
  await board.getByRole('button', { name: 'Marimba', exact: true }).click()
  await board.getByRole('button', { name: 'Handbells', exact: true }).click({ modifiers: ['Control'] })
  const level = board.getByRole('slider', { name: 'Send level' }).first()
  await expect(level).toHaveAttribute('aria-valuenow', '-16')
  await level.focus()
  await board.keyboard.press('ArrowRight')
  await board.keyboard.press('ArrowRight')
  // each keeps its distance: both moved by two steps
  await expect(row(board, 'Marimba').getByTitle(/^Send to Stone hall/)).toContainText('−15')
  await board.keyboard.press('Escape')
  await board.getByRole('button', { name: 'Handbells', exact: true }).click()
  await expect(board.getByRole('slider', { name: 'Send level' }).first()).not.toHaveAttribute('aria-valuenow', '-7')
  await row(board, 'Marimba')
    .getByTitle(/^Send to Stone hall/)
    .dragTo(row(board, 'Choir afar').locator('[data-chain]'))
  await expect(row(board, 'Choir afar').getByTitle(/^Send to Stone hall/)).toContainText('−15')
})

test('every send of a row can be dragged, also those behind the first', async ({ board }) => {
  await row(board, 'Handbells').getByRole('button', { name: '+1', exact: true }).hover()
  const more = board.getByRole('group', { name: '1 more sends of Handbells' })
  await more.getByTitle(/^Send to Far echo/).dragTo(row(board, 'Tide table').locator('[data-chain]'))
  await row(board, 'Tide table').getByRole('button', { name: '+1', exact: true }).hover()
  await expect(board.getByRole('group', { name: '1 more sends of Tide table' }).getByTitle(/^Send to Far echo/)).toContainText('−16')
})

test('a row is heard without its returns, and only its share of them', async ({ board }) => {
  await pick(board, 'Marimba')
  await board.keyboard.press('Space')
  await expect.poll(() => level(board, 'post', 'Stone hall'), { timeout: 20_000 }).toBeGreaterThan(-60)
  await board.keyboard.press('d')
  await expect(board.getByText('You hear Marimba without its returns')).toBeVisible()
  await expect.poll(() => level(board, 'in', 'Stone hall')).toBeLessThan(-100)
  await board.keyboard.press('Shift+d')
  await expect(board.getByText('You hear only what comes back of Marimba')).toBeVisible()
  await expect.poll(() => level(board, 'post', 'Marimba')).toBeLessThan(-100)
  await expect.poll(() => level(board, 'in', 'Stone hall'), { timeout: 20_000 }).toBeGreaterThan(-60)
  await board.keyboard.press('Escape')
  await expect.poll(() => level(board, 'post', 'Marimba'), { timeout: 20_000 }).toBeGreaterThan(-60)
  await board.keyboard.press('m')
  await expect(board.getByText('You hear the whole mix, in mono')).toBeVisible()
})

test('a key: another row drives a compressor, and can be listened to', async ({ board }) => {
  await stagesOf(board, 'Low horn').first().click()
  await board.getByRole('tab', { name: 'Key' }).click()
  await board.getByLabel('Driven by', { exact: true }).selectOption({ label: 'Frame drum' })
  await board.getByLabel('Driven by: where it is taken').selectOption({ label: 'after Gate' })
  await board.getByRole('button', { name: 'Listen', exact: true }).click()
  await board.getByRole('menuitem', { name: 'What drives it' }).click()
  await expect(board.getByText('You hear what drives Compressor on Low horn')).toBeVisible()
  await board.keyboard.press('Escape')
  await expect(board.getByLabel('Driven by', { exact: true })).not.toHaveValue('')
  await expect(board.getByTestId('key-mark')).toHaveText('key: Frame drum, after Gate')
})

test('soundings: counted, explained, mended in one gesture, or meant', async ({ board }) => {
  await expect(board.getByRole('button', { name: 'Soundings: 3' })).toBeVisible()
  await board.keyboard.press('z')
  const list = board.getByRole('dialog', { name: 'Soundings' })
  await expect(list.getByRole('article')).toHaveCount(3)
  await list.getByRole('button', { name: 'Set it to 100 % wet' }).click()
  await expect(list.getByRole('article')).toHaveCount(2)
  await list.getByRole('article', { name: 'The same kind of space twice' }).getByRole('button', { name: 'This is meant' }).click()
  await expect(board.getByRole('button', { name: 'Soundings: 1' })).toBeVisible()
  await list.getByText('1 meant as they are').click()
  await expect(list.getByText('Ada meant it; sound it again')).toBeVisible()
  await list.getByRole('button', { name: 'Close' }).click()
  await board.keyboard.press('Control+z')
  await expect(board.getByRole('button', { name: 'Soundings: 2' })).toBeVisible()
  // a diamond stands at the place
  await row(board, 'Bell buoy').getByLabel('Sounding: The same kind of space twice').click()
  await expect(list).toBeVisible()
})
