import { expect, project, row, type Shoal, stagesOf, test } from '../support/shoal'
import type { Page } from '@playwright/test'

type Moves = {
  movers: { id: string; shape: string; seed: number; quarters: number; targets: { owner: string; name: string; depth: number }[] }[]
  handles: { id: string; name: string; value: number; targets: { name: string; from: number; to: number }[] }[]
}
const moves = async (board: Page, shoal: Shoal) => (await project(board, shoal)).project as unknown as Moves
const bench = (board: Page) => board.getByRole('region', { name: 'Bench' })

test('a mover is added to a scale, shaped, thrown again and seen; it comes and goes with undo', async ({ board, shoal }) => {
  const before = (await moves(board, shoal)).movers.length
  await row(board, 'Marimba').getByRole('button', { name: 'Marimba', exact: true }).click()
  const pan = bench(board).getByRole('slider', { name: 'Pan', exact: true }).first()
  await pan.focus()
  await board.keyboard.press('m')
  const card = board.getByRole('dialog', { name: 'What moves Pan of Marimba' })
  await expect(card).toContainText('Its hand gives its base.')
  await card.getByRole('button', { name: 'Add a mover' }).click()
  await expect.poll(async () => (await moves(board, shoal)).movers.length).toBe(before + 1)
  const last = async () => (await moves(board, shoal)).movers.at(-1)!
  await card.getByLabel('Shape').selectOption('wander')
  await card.getByLabel('One movement takes').selectOption('1/4')
  await expect.poll(async () => (await last()).quarters).toBe(1)
  await card.getByRole('button', { name: 'Throw again' }).click()
  await expect.poll(async () => (await last()).seed).toBe(2)
  await card.getByRole('slider', { name: 'Depth' }).focus()
  await board.keyboard.press('PageUp')
  await expect.poll(async () => (await last()).targets[0]!.depth).toBeCloseTo(0.2)
  await board.keyboard.press('Escape')
  await expect(bench(board).getByRole('button', { name: 'mover', exact: true })).toBeVisible()
  // it is seen to move while it plays
  await board.keyboard.press('Space')
  const first = await pan.getAttribute('aria-valuenow')
  await expect.poll(() => pan.getAttribute('aria-valuenow')).not.toBe(first)
})

test('a handle takes parameters over ranges of their own, and is moved and given a line', async ({ board, shoal }) => {
  await row(board, 'Marimba').getByRole('button', { name: 'Marimba', exact: true }).click()
  const hang = async (scale: string, on: string) => {
    await bench(board).getByRole('slider', { name: scale, exact: true }).first().focus()
    await board.keyboard.press('m')
    await board.getByLabel('Hang it on a handle').selectOption({ label: on })
    await expect(board.getByRole('region', { name: /^Handle / })).toBeVisible()
  }
  await hang('Level', 'a new handle')
  await board.getByLabel('Name of the handle').fill('Approach')
  await board.keyboard.press('Enter')
  await expect.poll(async () => (await moves(board, shoal)).handles.at(-1)!.name).toBe('Approach')
  // it becomes the row's own, and stands on it
  await board.getByLabel('Belongs to').selectOption({ label: 'Marimba' })
  await board.getByLabel('Show it on the row').click() // it turns when the change has come back
  const own = row(board, 'Marimba')
    .getByRole('group', { name: 'Handles of Marimba' })
    .getByRole('slider', { name: /Approach/ })
  await expect(own).toBeVisible()
  await board.keyboard.press('Escape')
  await hang('Pan', 'Approach')
  await board.keyboard.press('Escape')
  await expect.poll(async () => (await moves(board, shoal)).handles.at(-1)!.targets.map((t) => t.name)).toEqual(['fader', 'pan'])
  const handle = bench(board).getByRole('group', { name: 'Handles' }).getByRole('slider', { name: 'Approach' })
  await handle.focus()
  await board.keyboard.press('End')
  await expect.poll(async () => (await moves(board, shoal)).handles.at(-1)!.value).toBe(100)
  // what hangs on it stands at the end of its range
  await expect(bench(board).getByRole('slider', { name: 'Pan', exact: true }).first()).toHaveAttribute('aria-valuenow', '1')
  await handle.focus()
  await board.keyboard.press('x')
  await expect(board.getByRole('group', { name: /^Line of Handle of Approach/ })).toBeVisible()
})

test('a mover follows the level of another row; what would follow itself is refused', async ({ board, shoal }) => {
  await row(board, 'Harbour').scrollIntoViewIfNeeded()
  await row(board, 'Harbour').getByRole('button', { name: 'Harbour', exact: true }).click()
  const level = bench(board).getByRole('slider', { name: 'Level', exact: true }).first()
  await level.focus()
  await board.keyboard.press('m')
  const card = board.getByRole('dialog', { name: 'What moves Level of Harbour' })
  await card.getByRole('button', { name: 'Add a mover' }).click()
  await card.getByLabel('Shape').selectOption('level')
  await card.getByLabel('Follows', { exact: true }).selectOption({ label: 'Harbour' })
  await card.getByLabel('Follows: where it is taken').selectOption({ label: 'after the fader' })
  await expect(board.getByText('the signal would feed itself: Harbour > Harbour')).toBeVisible()
  await card.getByLabel('Follows', { exact: true }).selectOption({ label: 'Marimba' })
  const depth = card.getByRole('slider', { name: 'Depth' })
  await depth.focus()
  await board.keyboard.press('Home')
  type Level = { follow?: { tap?: { channel: string }; low: number }; targets: { depth: number }[] }
  const last = async () => (await moves(board, shoal)).movers.at(-1) as unknown as Level
  await expect.poll(async () => (await last()).targets[0]!.depth).toBe(-1)
  expect((await last()).follow?.tap).toBeTruthy()
  await board.keyboard.press('Escape')
  // the marimba pulls the harbour down while it plays
  const before = Number(await level.getAttribute('aria-valuenow'))
  await board.keyboard.press('Space')
  await expect.poll(async () => Number(await level.getAttribute('aria-valuenow')), { timeout: 20_000 }).toBeLessThan(before - 6)
})

test('a movement is drawn; left and right are moved apart', async ({ board, shoal }) => {
  await stagesOf(board, 'Harbour').nth(1).scrollIntoViewIfNeeded()
  await stagesOf(board, 'Harbour').nth(1).click()
  const scale = bench(board).getByRole('slider', { name: 'Resonance', exact: true })
  await scale.focus()
  await board.keyboard.press('m')
  const card = board.getByRole('dialog', { name: /^What moves Resonance/ })
  await card.getByRole('button', { name: 'Add a mover' }).click()
  await card.getByLabel('Shape').selectOption('drawn')
  const drawing = card.getByRole('application')
  const box = (await drawing.boundingBox())!
  await board.mouse.move(box.x + 2, box.y + box.height - 3)
  await board.mouse.down()
  await board.mouse.move(box.x + box.width / 2, box.y + 3, { steps: 8 })
  await board.mouse.up()
  type Drawn = { shape: string; drawn: number[]; targets: { owner: string; name: string; depth: number }[] }
  const last = async () => ((await moves(board, shoal)).movers as unknown as Drawn[]).at(-1)!
  await expect.poll(async () => (await last()).drawn[0]).toBeLessThan(-0.9)
  const drawn = (await last()).drawn
  expect(drawn).toHaveLength(32)
  expect(drawn[15]!).toBeGreaterThan(0.8)
  expect(drawn[8]!).toBeGreaterThan(drawn[4]!) // it rises between
  await drawing.focus()
  await board.keyboard.press('ArrowRight')
  await board.keyboard.press('ArrowUp')
  await expect.poll(async () => (await last()).drawn[1]).toBeCloseTo(drawn[1]! + 0.1, 2)
  // apart: two stages, one mover, opposite depths
  const before = await stagesOf(board, 'Harbour').count()
  await card.getByRole('button', { name: 'Move left and right apart' }).click()
  await expect(stagesOf(board, 'Harbour')).toHaveCount(before + 1)
  const depths = (await last()).targets.map((t) => t.depth)
  expect(depths).toEqual([depths[0], -depths[0]!])
  await expect(card.getByRole('button', { name: 'Move left and right apart' })).toHaveCount(0)
  await board.keyboard.press('Escape')
  await expect(stagesOf(board, 'Harbour').nth(1)).toContainText('left')
  await expect(stagesOf(board, 'Harbour').nth(2)).toContainText('right')
})
