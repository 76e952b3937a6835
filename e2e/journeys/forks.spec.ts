import type { Page } from '@playwright/test'
import { type Shoal, clock, expect, project, row, stagesOf, test } from '../support/shoal'

type Path = { id: string; name: string; level: number; mute: boolean; chain: { nodes: Node[] } }
type Fork = {
  id: string
  kind: string
  trim: number
  crossovers: number[]
  slope: number
  linear: boolean
  bypass: boolean
  paths: Path[]
}
type Node = { stage?: { id: string; effect: string }; fork?: Fork }

const bench = (board: Page) => board.getByRole('region', { name: 'Bench' })
/** The forks of a row's own chain, as the server has them. */
const forksOf = async (board: Page, shoal: Shoal, name: string) => {
  const { project: p } = await project(board, shoal)
  const nodes = p.channels.find((c) => c.name === name)!.chain.nodes as unknown as Node[]
  return nodes.flatMap((n) => (n.fork ? [n.fork] : []))
}
const forkOf = async (board: Page, shoal: Shoal, name: string) => (await forksOf(board, shoal, name))[0]!
/** The level at a point, as the page hears it. */
const level = (board: Page, point: string) =>
  board.evaluate((point) => {
    const e = (globalThis as unknown as { shoalEngine: { heard(): { peaks: Map<string, [number, number]> } | null } }).shoalEngine
    return Math.max(...(e.heard()?.peaks.get(point) ?? [-120, -120]))
  }, point)

test('stages become a path beside a dry one that is off, and dissolve again', async ({ board, shoal }) => {
  await stagesOf(board, 'Marimba').nth(1).click()
  await stagesOf(board, 'Marimba')
    .nth(2)
    .click({ modifiers: ['Shift'] })
  await board.keyboard.press('f')
  await expect(row(board, 'Marimba').locator('[data-fork]')).toHaveCount(1)
  const panel = board.getByRole('group', { name: 'Fork, copies on Marimba' })
  await bench(board).getByRole('button', { name: 'Path Dry, muted' }).click()
  await expect(panel.getByRole('button', { name: 'Mute Dry' })).toHaveAttribute('aria-pressed', 'true')
  await expect(stagesOf(board, 'Marimba')).toHaveCount(2)
  // both paths heard: the dry one comes in
  await panel.getByRole('button', { name: 'Mute Dry' }).click()
  await expect.poll(async () => (await forkOf(board, shoal, 'Marimba')).paths[0]!.mute).toBe(false)
  // one path more, named, and taken out again
  await panel.getByRole('button', { name: 'Paths of the fork' }).click()
  await board.getByRole('menuitem', { name: 'Add a path' }).click()
  const fresh = bench(board).getByRole('button', { name: 'Path Path 2, muted' })
  await expect(fresh).toHaveAttribute('aria-pressed', 'true') // it is there, and selected
  await board.keyboard.press('n')
  await board.getByLabel('Name of the path').first().fill('Bright')
  await board.keyboard.press('Enter')
  await expect(bench(board).getByRole('button', { name: 'Path Bright, muted' })).toBeVisible()
  await expect(board.getByText('Path 2 begins muted, so that nothing gets louder.')).toBeVisible()
  await board.getByRole('button', { name: 'Hear it' }).click()
  await expect(bench(board).getByRole('button', { name: 'Path Bright', exact: true })).toBeVisible()
  await board.keyboard.press('Delete')
  await expect(bench(board).getByRole('button', { name: /^Path / })).toHaveCount(2)
  // dissolved, the stages stand in the chain again
  await row(board, 'Marimba').locator('[data-fork]').click()
  await panel.getByRole('button', { name: 'Menu of the fork' }).click()
  await board.getByRole('menuitem', { name: 'Dissolve into one path' }).click()
  await expect(stagesOf(board, 'Marimba')).toHaveCount(4)
  await expect(row(board, 'Marimba').locator('[data-fork]')).toHaveCount(0)
  await board.keyboard.press('Control+z')
  await expect(row(board, 'Marimba').locator('[data-fork]')).toHaveCount(1)
})

test('bands: inserted, crossovers dragged, typed and kept apart, divided, listened to', async ({ board, shoal }) => {
  await stagesOf(board, 'Handbells').first().click()
  await board.keyboard.press('/')
  await board.getByLabel('Search effects').fill('3 bands')
  await board.keyboard.press('Enter')
  const panel = board.getByRole('group', { name: 'Fork, 3 bands on Handbells' })
  await expect(panel).toBeVisible()
  const first = panel.getByRole('slider', { name: '1, crossover in the picture' })
  const box = (await first.boundingBox())!
  await board.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await board.mouse.down()
  await board.mouse.move(box.x + box.width / 2 + 20, box.y + box.height / 2, { steps: 5 })
  await board.mouse.up()
  await expect.poll(async () => (await forkOf(board, shoal, 'Handbells')).crossovers[0]).toBeGreaterThan(300)
  // typed beyond its neighbour it stops a third of an octave before it
  await panel.getByRole('slider', { name: 'Crossover 1' }).press('Enter')
  await panel.getByLabel('Crossover 1, type a value').fill('9000')
  await board.keyboard.press('Enter')
  await expect.poll(async () => (await forkOf(board, shoal, 'Handbells')).crossovers[0]).toBeCloseTo(3000 / 2 ** (1 / 3), 0)
  await board.keyboard.press('Control+z')
  await panel.getByLabel('Slope').selectOption('48 dB/oct')
  await expect.poll(async () => (await forkOf(board, shoal, 'Handbells')).slope).toBe(48)
  await panel.getByLabel('Linear phase').click()
  await expect.poll(async () => (await forkOf(board, shoal, 'Handbells')).linear).toBe(true)
  await expect(panel.getByText('ms late, made up for')).toBeVisible()
  // a band is divided while it plays, then taken out again
  await board.keyboard.press('Space')
  await bench(board).getByRole('button', { name: 'Path Mids' }).click()
  await board.getByRole('button', { name: 'Paths of the fork' }).click()
  await board.getByRole('menuitem', { name: 'Divide Mids in two' }).click()
  await expect(board.getByRole('group', { name: 'Fork, 4 bands on Handbells' })).toBeVisible()
  expect((await forkOf(board, shoal, 'Handbells')).crossovers).toHaveLength(3)
  await board.keyboard.press('Delete')
  await expect(board.getByRole('group', { name: 'Fork, 3 bands on Handbells' })).toBeVisible()
  // listening to one band, then to two, and to everything again
  await bench(board).getByRole('button', { name: 'Listen to the strand Low' }).click()
  await expect(board.getByText('You hear only Low of Handbells')).toBeVisible()
  await bench(board)
    .getByRole('button', { name: 'Listen to the strand High' })
    .click({ modifiers: ['Shift'] })
  await expect(board.getByText('You hear only Low and High of Handbells')).toBeVisible()
  await board.keyboard.press('Escape')
  await expect(board.getByText('You hear only')).toHaveCount(0)
})

test('the keyboard goes along the signal, across the paths, into a fork and out of it', async ({ board }) => {
  const at = (name: string | RegExp) =>
    expect(bench(board).locator('[aria-pressed=true]').and(bench(board).getByRole('button', { name })).first()).toBeVisible()
  await stagesOf(board, 'Frame drum').nth(2).click()
  await board.keyboard.press('ArrowRight')
  await at(/^Crush below, 2 paths/)
  await board.keyboard.press('ArrowRight')
  await at(/^Path Skin/)
  await board.keyboard.press('ArrowDown')
  await at(/^Path Crush/)
  await board.keyboard.press('ArrowRight')
  await at(/^Flatten/)
  await board.keyboard.press('ArrowRight')
  await at(/^Body and nails, 2 paths/)
  await board.keyboard.press('ArrowRight')
  await board.keyboard.press('ArrowDown')
  await at(/^Path Nails/)
  await board.keyboard.press('v')
  await expect(board.getByText('You hear only Nails of Frame drum')).toBeVisible()
  await board.keyboard.press('Escape')
  for (let i = 0; i < 2; i++) await board.keyboard.press('ArrowUp')
  await at(/^Body and nails, 2 paths/)
  for (let i = 0; i < 3; i++) await board.keyboard.press('ArrowLeft')
  await at(/^Crush below, 2 paths/)
})

test('the braid of a row opens, and its stages are bypassed and moved there', async ({ board, shoal }) => {
  const braid = row(board, 'Low horn').locator('[data-fork]')
  await braid.hover()
  const open = board.getByRole('group', { name: 'Paths of Hull and breath' })
  await expect(open.getByRole('button', { name: 'Path Spray' })).toBeVisible()
  await open.locator('[data-stage]').first().click()
  await expect(board.getByRole('heading', { name: 'Breath' })).toBeVisible()
  await board.keyboard.press('b')
  await expect(bench(board).getByRole('button', { name: /^Breath, bypassed/ })).toBeVisible()
  await board.mouse.move(600, 700)
  await expect(open).toHaveCount(0)
  await braid.focus()
  await expect(open).toBeVisible()
  // a path is muted by its key
  await bench(board).getByRole('button', { name: 'Path Spray' }).click()
  await board.keyboard.press('b')
  await expect.poll(async () => (await forkOf(board, shoal, 'Low horn')).paths[2]!.mute).toBe(true)
})

test('paths are levelled by what is heard, and the output keeps its level', async ({ board, shoal }) => {
  test.slow() // what is heard is rendered twice
  await row(board, 'Frame drum').locator('[data-fork]').click()
  const before = (await forkOf(board, shoal, 'Frame drum')).paths.map((p) => p.level)
  await board.evaluate(() => (globalThis as unknown as { shoalEngine: { locate(f: number): void } }).shoalEngine.locate(48000 * 62))
  await expect.poll(() => clock(board)).toBeGreaterThan(60)
  await board.getByRole('button', { name: 'Paths of the fork' }).click()
  await board.getByRole('menuitem', { name: 'Make the paths equally loud' }).click()
  // how far it is is seen, and it can be given up
  await expect(board.getByRole('progressbar', { name: /^Listening to .* \d+ %$/ })).toBeVisible()
  await board.getByRole('status').getByRole('button', { name: 'Cancel' }).click()
  await expect(board.getByText('Cancelled: nothing has changed.')).toBeVisible()
  expect((await forkOf(board, shoal, 'Frame drum')).paths.map((p) => p.level)).toEqual(before)
  await board.getByRole('button', { name: 'Paths of the fork' }).click()
  await board.getByRole('menuitem', { name: 'Make the paths equally loud' }).click()
  await expect(board.getByRole('progressbar', { name: /^Listening to .* [1-9]\d* %$/ })).toBeVisible()
  await expect
    .poll(async () => (await forkOf(board, shoal, 'Frame drum')).paths.map((p) => p.level), { timeout: 80_000 })
    .not.toEqual(before)
  await board.getByRole('button', { name: 'Paths of the fork' }).click()
  await board.getByRole('menuitem', { name: 'Keep the level: out as loud as in' }).click()
  await expect.poll(async () => (await forkOf(board, shoal, 'Frame drum')).trim, { timeout: 80_000 }).not.toBe(0)
})

test('bands are spread to rows in two gestures, and heard there', async ({ board, shoal }) => {
  await stagesOf(board, 'Marimba').nth(2).click()
  await board.keyboard.press('/')
  await board.getByLabel('Search effects').fill('2 bands')
  await board.keyboard.press('Enter')
  await board.getByRole('button', { name: 'Paths of the fork' }).click()
  await board.getByRole('menuitem', { name: 'Spread the paths to rows' }).click()
  await expect(row(board, 'Marimba, Low')).toBeVisible()
  await expect(row(board, 'Marimba, High')).toBeVisible()
  await expect(row(board, 'Marimba paths')).toBeVisible()
  await expect(row(board, 'Marimba').getByText('nowhere')).toBeVisible()
  const { project: p } = await project(board, shoal)
  const low = p.channels.find((c) => c.name === 'Marimba, Low')!.id
  await board.keyboard.press('Space')
  await expect.poll(() => level(board, `post ${low}`), { timeout: 20_000 }).toBeGreaterThan(-60)
})

test('a forked chain is taken from the presets, kept as a trial, and a path is a key', async ({ board, shoal }) => {
  await row(board, 'Marimba').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('Shift+W')
  await board.getByPlaceholder(/Search/).fill('inshore')
  await board.getByRole('option', { name: /Inshore and offing/ }).dblclick()
  await expect(row(board, 'Marimba').locator('[data-fork]')).toHaveCount(1)
  expect((await forkOf(board, shoal, 'Marimba')).paths.map((p) => p.name)).toEqual(['Here', 'Inshore', 'Offing'])
  await board.keyboard.press('Escape')
  await board.keyboard.press('Shift+O')
  await expect(row(board, 'Marimba').locator('[data-fork]')).toHaveCount(1)
  await stagesOf(board, 'Low horn').first().click()
  await board.getByRole('tab', { name: 'Key' }).click()
  await board.getByLabel('Driven by', { exact: true }).selectOption({ label: 'Marimba' })
  await board.getByLabel('Driven by: where it is taken').selectOption({ label: 'path Offing' })
  await expect(board.getByLabel('Driven by: where it is taken')).toHaveValue(/^path /)
})
