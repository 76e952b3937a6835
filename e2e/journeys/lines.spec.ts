import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { type Shoal, clock, expect, project, row, stagesOf, still, test } from '../support/shoal'

type Point = { tick: number; value: number; shape: string }
type Line = { owner: string; name: string; points: Point[] }

const linesOf = async (board: Page, shoal: Shoal) => ((await project(board, shoal)).project as unknown as { lines: Line[] }).lines
const strip = (board: Page, of: string) => board.getByRole('group', { name: new RegExp(`^Line of ${of}`) })
/** Opens a line for something of a row, by searching. */
async function open(board: Page, name: string, search: string) {
  await row(board, name).getByRole('button', { name, exact: true }).click()
  await board.keyboard.press('Shift+X')
  await board.getByLabel('Search parameters').fill(search)
  await expect(board.getByRole('listbox', { name: 'Parameters' }).getByRole('option').first()).toBeVisible()
  await board.keyboard.press('Enter')
}
async function drag(board: Page, of: string, from: [number, number], to: [number, number]) {
  const b = (await strip(board, of).boundingBox())!
  await board.mouse.move(b.x + from[0], b.y + from[1])
  await board.mouse.down()
  await board.mouse.move(b.x + to[0], b.y + to[1], { steps: 6 })
  await board.mouse.up()
}
const points = async (board: Page, shoal: Shoal, name: string) => (await linesOf(board, shoal)).find((l) => l.name === name)?.points ?? []
/** Puts a point on a line by a double click, and waits until it is drawn. */
async function put(board: Page, of: string, x: number, y: number) {
  const count = async () => Number(/(\d+) points?$/.exec((await strip(board, of).getAttribute('aria-label'))!)![1])
  const before = await count()
  const b = (await strip(board, of).boundingBox())!
  await board.mouse.dblclick(b.x + x, b.y + y)
  await expect.poll(count).toBe(before + 1)
}

test('a line is opened by searching; points are put, moved together, shaped and taken off', async ({ board, shoal }) => {
  await open(board, 'Low horn', 'level low horn')
  await expect(strip(board, 'Level of Low horn')).toBeVisible()
  for (const [x, y] of [
    [500, 10],
    [700, 36],
    [900, 12],
  ] as const)
    await put(board, 'Level of Low horn', x, y)
  const three = await points(board, shoal, 'fader')
  expect(three.every((p) => p.tick % 240 === 0)).toBe(true)
  expect(three[1]!.value).toBeLessThan(three[0]!.value)
  // two of them selected by a stretch and moved to the right
  await drag(board, 'Level of Low horn', [450, 44], [760, 44])
  await expect(strip(board, 'Level of Low horn').locator('circle[r="4.5"]')).toHaveCount(2)
  const first = (await strip(board, 'Level of Low horn').locator('circle').first().boundingBox())!
  await board.mouse.move(first.x + first.width / 2, first.y + first.height / 2)
  await board.mouse.down()
  await board.mouse.move(first.x + 60, first.y + first.height / 2, { steps: 5 })
  await board.mouse.up()
  await expect.poll(async () => (await points(board, shoal, 'fader')).map((p) => p.tick - three[0]!.tick)[0]).toBeGreaterThan(400)
  const moved = await points(board, shoal, 'fader')
  expect(moved[1]!.tick - moved[0]!.tick).toBe(three[1]!.tick - three[0]!.tick)
  // a shape, and a value that is typed
  await drag(board, 'Level of Low horn', [450, 44], [660, 44])
  await board.getByLabel('Menu of the line of Level of Low horn').click()
  await board.getByRole('menuitem', { name: 'Go on from the points by a gentle S' }).click()
  await expect.poll(async () => (await points(board, shoal, 'fader'))[0]!.shape).toBe('smooth')
  await board.getByLabel('Menu of the line of Level of Low horn').click()
  await board.getByRole('menuitem', { name: 'Type the value of the points' }).click()
  await board.getByRole('textbox', { name: 'Value' }).fill('-10')
  await board.keyboard.press('Enter')
  await expect.poll(async () => (await points(board, shoal, 'fader'))[0]!.value).toBe(-10)
  // copied and put down at the playhead, taken off again
  await strip(board, 'Level of Low horn').focus()
  await drag(board, 'Level of Low horn', [450, 44], [1000, 44])
  await board.keyboard.press('Control+c')
  await board.keyboard.press('Control+v')
  await expect.poll(async () => (await points(board, shoal, 'fader')).length).toBe(6)
  await board.keyboard.press('Delete')
  await expect.poll(async () => (await points(board, shoal, 'fader')).length).toBe(3)
  await row(board, 'Low horn').getByRole('button', { name: 'Low horn', exact: true }).click()
  await board.keyboard.press('x')
  await expect(strip(board, 'Level of Low horn')).toHaveCount(0)
  await board.keyboard.press('x')
  await expect(strip(board, 'Level of Low horn')).toBeVisible()
})

test('a stretch takes a value, shapes and throws; a switch has a line; undo is one step', async ({ board, shoal }) => {
  await stagesOf(board, 'Marimba').nth(0).click()
  await open(board, 'Marimba', 'bypass dotted')
  await drag(board, 'Bypass of Dotted echo', [300, 30], [600, 30])
  await board.getByLabel('Menu of the line of Bypass of Dotted echo').click()
  await board.getByRole('menuitem', { name: 'Hold a value over the stretch' }).click()
  await board.getByRole('textbox', { name: 'Value' }).fill('on')
  await board.keyboard.press('Enter')
  await expect.poll(async () => (await points(board, shoal, 'bypass')).map((p) => p.value)).toEqual([0, 1, 0])
  await open(board, 'Marimba', 'mix dotted')
  await drag(board, 'Mix of Dotted echo', [300, 20], [600, 22])
  const menu = board.getByLabel('Menu of the line of Mix of Dotted echo')
  await menu.click()
  await board.getByRole('menuitem', { name: 'Draw a tremble' }).click()
  await expect.poll(async () => (await points(board, shoal, 'mix')).length).toBeGreaterThan(20)
  const drawn = (await points(board, shoal, 'mix')).length
  await menu.click()
  await board.getByRole('menuitem', { name: 'Fill by chance (again: another throw)' }).click()
  await expect.poll(async () => (await points(board, shoal, 'mix')).length).not.toBe(drawn)
  await board.keyboard.press('Control+z')
  await expect.poll(async () => (await points(board, shoal, 'mix')).length).toBe(drawn)
})

test('a scale says that its line moves it, and is taken down by hand while it plays', async ({ board, shoal }) => {
  await row(board, 'Marimba').getByRole('button', { name: 'Marimba', exact: true }).click()
  const level = board.getByRole('region', { name: 'Bench' }).getByRole('slider', { name: 'Level', exact: true })
  await level.focus()
  await board.keyboard.press('x') // its line, from the scale
  await expect(strip(board, 'Level of Marimba')).toBeVisible()
  await put(board, 'Level of Marimba', 400, 14)
  await expect(board.getByRole('region', { name: 'Bench' }).getByRole('button', { name: 'line', exact: true })).toBeVisible()
  await board.keyboard.press('Space')
  await expect.poll(() => board.getByTestId('clock').textContent()).not.toBe('0:00.00')
  const s = (await level.boundingBox())!
  await board.mouse.move(s.x + s.width * 0.5, s.y + 8)
  await board.mouse.down()
  await board.mouse.move(s.x + s.width * 0.3, s.y + 8, { steps: 8 })
  await expect(board.getByText('taken down', { exact: true })).toBeVisible()
  const held = await clock(board) // the hand rests a while
  await expect.poll(() => clock(board)).toBeGreaterThan(held + 0.5)
  await board.mouse.move(s.x + s.width * 0.6, s.y + 8, { steps: 8 })
  await board.mouse.up()
  await expect.poll(async () => (await points(board, shoal, 'fader')).length, { timeout: 20_000 }).toBeGreaterThan(3)
  await expect(board.getByText('Level of Marimba was taken down.')).toBeVisible()
  await board.keyboard.press('Space')
  await board.keyboard.press('Control+z')
  await expect(board.getByText(/Undone: Take down/)).toBeVisible()
  await expect.poll(async () => (await points(board, shoal, 'fader')).length).toBe(1)
})

test('lines have no barriers, in both themes', async ({ board }) => {
  await open(board, 'Low horn', 'level low horn')
  await expect(strip(board, 'Level of Low horn')).toBeVisible()
  for (const theme of ['day', 'night']) {
    if (theme === 'night') {
      await row(board, 'Low horn').getByRole('button', { name: 'Low horn', exact: true }).click()
      await board.keyboard.press('g')
    }
    await still(board) // colours fade
    const found = await new AxeBuilder({ page: board })
      .include('[data-row][aria-label="Low horn"]')
      .withTags(['wcag2a', 'wcag2aa', 'wcag22aa'])
      .analyze()
    expect(found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 140)).join(' | ')}`)).toEqual([])
  }
})

test('points are boxed, keep their value when moved along, and those of several lines go as one', async ({ board, shoal }) => {
  await open(board, 'Low horn', 'level low horn')
  await open(board, 'Low horn', 'pan low horn')
  await expect(strip(board, 'Pan of Low horn')).toBeVisible()
  for (const [x, y] of [
    [500, 10],
    [700, 38],
    [800, 12],
  ] as const)
    await put(board, 'Level of Low horn', x, y)
  for (const [x, y] of [
    [520, 30],
    [760, 14],
  ] as const)
    await put(board, 'Pan of Low horn', x, y)
  const chosen = (of: string) => strip(board, of).locator('circle[r="4.5"]')
  // a box around the upper two
  await board.keyboard.down('Shift')
  await drag(board, 'Level of Low horn', [470, 2], [830, 22])
  await board.keyboard.up('Shift')
  await expect(chosen('Level of Low horn')).toHaveCount(2)
  // moved along, a little crooked: the values stay
  const before = await points(board, shoal, 'fader')
  const c = (await strip(board, 'Level of Low horn').locator('circle').first().boundingBox())!
  await board.mouse.move(c.x + c.width / 2, c.y + c.height / 2)
  await board.mouse.down()
  await board.mouse.move(c.x - 40, c.y + c.height / 2 + 4, { steps: 5 })
  await board.mouse.up()
  await expect.poll(async () => (await points(board, shoal, 'fader'))[0]!.tick).toBeLessThan(before[0]!.tick)
  const after = await points(board, shoal, 'fader')
  expect(after.map((p) => p.value)).toEqual(before.map((p) => p.value))
  expect(after[1]!.tick).toBe(before[1]!.tick)
  // both lines as one: copied, put down at the playhead, moved
  await drag(board, 'Level of Low horn', [430, 44], [840, 44])
  await board.keyboard.press('Control+a')
  await expect(chosen('Pan of Low horn')).toHaveCount(2)
  await expect(chosen('Level of Low horn')).toHaveCount(3)
  await board.keyboard.press('Control+c')
  await board.keyboard.press('Control+v')
  await expect.poll(async () => (await points(board, shoal, 'pan')).length).toBe(4)
  const [level, pan] = [await points(board, shoal, 'fader'), await points(board, shoal, 'pan')]
  expect(level).toHaveLength(6)
  const original = after[0]!.tick - (await points(board, shoal, 'pan'))[2]!.tick
  expect(level[0]!.tick - pan[0]!.tick).toBe(original) // as far apart as they were
  await strip(board, 'Level of Low horn').focus()
  await board.keyboard.press('Delete')
  await expect.poll(async () => (await points(board, shoal, 'pan')).length).toBe(2)
  expect(await points(board, shoal, 'fader')).toEqual(after)
  // pulled as one: those of the other line are seen to go along
  await drag(board, 'Level of Low horn', [430, 44], [840, 44])
  await board.keyboard.press('Control+a')
  await expect(chosen('Pan of Low horn')).toHaveCount(2)
  const at = async (of: string) => (await strip(board, of).locator('circle').first().boundingBox())!
  const [held, other] = [await at('Level of Low horn'), await at('Pan of Low horn')]
  await board.mouse.move(held.x + held.width / 2, held.y + held.height / 2)
  await board.mouse.down()
  await board.mouse.move(held.x + 40, held.y + held.height / 2, { steps: 5 })
  const pulled = (await at('Pan of Low horn')).x - other.x
  expect(pulled).toBeGreaterThan(25)
  expect(pulled).toBeCloseTo((await at('Level of Low horn')).x - held.x, 0)
  await board.mouse.up()
  await expect.poll(async () => (await points(board, shoal, 'pan'))[0]!.tick).toBeGreaterThan(pan[0]!.tick)
})

test('a clip is carried along its row, and its lines with it when that was said once', async ({ board, shoal }) => {
  const clips = async () =>
    (await project(board, shoal)).project.channels.find((c: { name: string }) => c.name === 'Low horn')!.clips as unknown as {
      id: string
      start: number
    }[]
  await open(board, 'Low horn', 'level low horn')
  const b = (await strip(board, 'Level of Low horn').boundingBox())!
  const clip = row(board, 'Low horn').locator('[data-clip]').first()
  const c = (await clip.boundingBox())!
  await board.mouse.dblclick(c.x + c.width / 2, b.y + 12) // a point in the middle of the clip
  await expect.poll(async () => (await points(board, shoal, 'fader')).length).toBe(1)
  const before = { clips: await clips(), points: await points(board, shoal, 'fader') }
  await board.mouse.move(c.x + c.width / 2, c.y + c.height / 2)
  await board.mouse.down()
  await board.mouse.move(c.x + c.width / 2 - 50, c.y + c.height / 2, { steps: 5 })
  await board.mouse.up()
  await board.getByRole('button', { name: 'Take them along' }).click()
  await expect.poll(async () => (await clips())[0]!.start).toBeLessThan(before.clips[0]!.start)
  const by = (await clips())[0]!.start - before.clips[0]!.start
  expect((await clips())[0]!.start % 240).toBe(0)
  const moved = await points(board, shoal, 'fader')
  expect(moved.some((p) => p.tick === before.points[0]!.tick + by && p.value === before.points[0]!.value)).toBe(true)
  // by keys: nothing is asked again; one undo takes clip and line back
  await clip.focus()
  await board.keyboard.press('ArrowRight')
  await expect.poll(async () => (await clips())[0]!.start).toBe(before.clips[0]!.start + by + 240)
  await board.keyboard.press('Control+z')
  await board.keyboard.press('Control+z')
  await expect.poll(async () => (await clips())[0]!.start).toBe(before.clips[0]!.start)
  expect(await points(board, shoal, 'fader')).toEqual(before.points)
})
