import type { Page } from '@playwright/test'
import { named, clock, expect, project, row, stagesOf, test } from '../support/shoal'

const focused = (board: Page) => board.locator(':focus')
const strip = (board: Page, of: string) => board.getByRole('group', { name: new RegExp(`^Line of ${of}`) })
type Kept = {
  project: { lines: { owner: string; name: string; points: { tick: number }[] }[]; movers?: unknown[]; handles?: { targets: unknown[] }[] }
}

test('without a mouse: an effect, its place, a value, bypass, a send, a fork, a line, a print, and undo', async ({ board, shoal }) => {
  await board.keyboard.press('ArrowDown') // the first row
  for (let i = 0; i < 5; i++) await board.keyboard.press('ArrowDown')
  await expect(board.getByRole('heading', { name: 'Choir afar' }).first()).toBeVisible()
  for (let i = 0; i < 3; i++) await board.keyboard.press('ArrowUp')
  const row3 = 'Low horn'
  await expect(board.getByRole('heading', { name: row3 }).first()).toBeVisible()
  await board.keyboard.press('/')
  await board.keyboard.type('trim')
  await board.keyboard.press('Enter')
  const stages = stagesOf(board, row3)
  await expect(stages.last()).toHaveAccessibleName('Trim')
  // earlier, twice: in front of the equaliser, then of the fork
  await board.keyboard.press('Alt+ArrowLeft')
  await expect(stages.last()).not.toHaveAccessibleName('Trim')
  // one key to its scales, one back; a typed value leaves the focus where it was
  await board.keyboard.press('Enter')
  const gain = board.getByRole('slider', { name: 'Gain', exact: true })
  await expect(gain).toBeFocused()
  await board.keyboard.press('Enter')
  await board.keyboard.type('-7.5')
  await board.keyboard.press('Enter')
  await expect(gain).toHaveAttribute('aria-valuenow', '-7.5')
  await expect(gain).toBeFocused()
  await board.keyboard.press('Escape')
  await expect(focused(board)).toHaveAccessibleName(/^Trim/)
  await board.keyboard.press('b')
  await expect(row(board, row3).getByRole('button', { name: 'Trim, bypassed', exact: true })).toBeVisible()
  // a fork of it
  await board.keyboard.press('f')
  await expect(row(board, row3).locator('[data-fork]')).toHaveCount(2)
  // a send to a new return
  await board.keyboard.press('s')
  await board.keyboard.type('Quay')
  await board.keyboard.press('Enter')
  await expect(row(board, 'Quay')).toBeAttached()
  await expect(board.getByRole('heading', { name: 'Quay' }).first()).toBeVisible() // it is on the bench
  // a line for the row's level
  await board.keyboard.press('ArrowUp')
  await board.keyboard.press('Shift+X')
  await board.keyboard.type('level')
  await expect(board.getByRole('listbox', { name: 'Parameters' }).getByRole('option').first()).toBeVisible()
  await board.keyboard.press('Enter')
  await expect(strip(board, 'Level').first()).toBeAttached()
  // a print of a short range is one key and Enter
  await board.keyboard.press('Home')
  for (let i = 0; i < 12; i++) await board.keyboard.press('ArrowUp')
  await board.keyboard.press('p')
  await expect(focused(board)).toHaveAccessibleName('Print')
  await board.keyboard.press('Escape')
  const last = (await project(board, shoal)).revision
  await board.keyboard.press('Control+z')
  await expect.poll(async () => (await project(board, shoal)).revision).toBeGreaterThan(last)
})

test('every panel closes with Esc, and the focus goes back where it was', async ({ board }) => {
  await stagesOf(board, 'Marimba').nth(0).click()
  for (const [key, name] of [
    ['z', 'Soundings'],
    ['w', 'Presets'],
    ['/', 'Effects'],
    ['?', 'Keys'],
    ['Shift+P', 'Stems and mixes'],
    ['s', /^Send/],
    ['Shift+X', 'Lines'],
  ] as const) {
    await board.keyboard.press(key)
    const panel = board.getByRole('dialog', { name })
    await expect(panel).toBeVisible()
    await board.keyboard.press('Escape')
    await expect(panel).toBeHidden()
    await expect(stagesOf(board, 'Marimba').nth(0)).toBeFocused()
  }
  // saving a preset leaves a list that Esc still closes
  await board.keyboard.press('w')
  await board.getByRole('button', { name: 'Save', exact: true }).click()
  await board.getByLabel('Name of the preset').fill('Low light')
  await board.keyboard.press('Enter')
  await expect(board.getByText('Saved as Low light.')).toBeVisible()
  await expect(board.getByLabel('Name of the preset')).toBeHidden()
  await board.keyboard.press('Escape')
  await expect(board.getByRole('dialog', { name: 'Presets' })).toBeHidden()
})

test('a list of soundings at the side leaves the board its keys, also when it is empty', async ({ page, shoal }) => {
  await page.goto(shoal.url)
  await page.getByRole('button', { name: 'New project' }).click()
  await page.keyboard.type('Skiff')
  await page.keyboard.press('Enter')
  await named(page, 'Ada')
  await page.keyboard.press('z')
  const list = page.getByRole('dialog', { name: 'Soundings' })
  await expect(list.getByText('Nothing to sound')).toBeVisible()
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await page.keyboard.press('z')
  await expect(list).toBeHidden()
  await page.keyboard.press('z')
  await page.keyboard.press('/')
  await expect(page.getByRole('dialog', { name: 'Effects' })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('z')
  await expect(list).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(list).toBeHidden()
})

test('every scale has a figure and takes a typed value; a slow drag is one entry and one undo, and so are stages set together', async ({
  board,
  shoal,
}) => {
  const level = board.getByRole('slider', { name: 'Level of Marimba', exact: true })
  await expect(
    row(board, 'Marimba')
      .getByRole('img', { name: /both sound at once here/ })
      .first(),
  ).toBeVisible()
  await expect(row(board, 'Marimba').getByRole('button', { name: '−4.0' })).toBeVisible()
  await level.focus()
  await board.keyboard.press('Enter')
  await board.getByLabel('Level of Marimba, type a value').fill('-9')
  await board.keyboard.press('Enter')
  await expect(level).toHaveAttribute('aria-valuenow', '-9')
  await expect(level).toBeFocused()
  await row(board, 'Stone hall').getByRole('button', { name: 'Stone hall', exact: true }).click()
  const sent = board.getByRole('slider', { name: 'Sent by Marimba' })
  await sent.focus()
  await board.keyboard.press('Enter')
  await board.getByLabel('Sent by Marimba, type a value').fill('-20')
  await board.keyboard.press('Enter')
  await expect(sent).toHaveAttribute('aria-valuenow', '-20')

  // a drag with pauses
  await level.scrollIntoViewIfNeeded()
  const box = (await level.boundingBox())!
  await board.mouse.move(box.x + box.width * 0.78, box.y + 8)
  await board.mouse.down()
  for (const x of [0.6, 0.5, 0.4]) {
    await board.mouse.move(box.x + box.width * x, box.y + 8, { steps: 3 })
    // the hand rests until what it set has been stored
    const now = Number(await level.getAttribute('aria-valuenow'))
    await expect.poll(async () => (await project(board, shoal)).project.channels[0]!.fader).toBe(now)
  }
  await board.mouse.up()
  await expect.poll(async () => Number(await level.getAttribute('aria-valuenow'))).toBeLessThan(-20)
  await board.getByLabel('More', { exact: true }).click()
  await board.getByRole('menuitem', { name: 'Logbook' }).click()
  const log = board.getByRole('dialog', { name: /Logbook/ })
  await expect(log.getByText('Level of Marimba')).toHaveCount(2) // the value that was typed, and the drag
  await board.keyboard.press('Escape')
  await board.keyboard.press('Control+z')
  await expect(level).toHaveAttribute('aria-valuenow', '-9')

  // two stages set together by one key are one undo
  const trims = async () =>
    (await project(board, shoal)).project.channels[0]!.chain.nodes.filter((n) => n.stage?.effect === 'trim').map(
      (n) => n.stage.params.gain ?? 0,
    )
  await row(board, 'Marimba').getByRole('button', { name: 'Marimba', exact: true }).click()
  for (let i = 0; i < 2; i++) {
    await board.keyboard.press('/')
    await board.keyboard.type('trim')
    await board.keyboard.press('Enter')
    await expect.poll(async () => (await trims()).length).toBe(i + 1)
    // the stage that came is the selected one, before the next key
    const came = (await project(board, shoal)).project.channels[0]!.chain.nodes.filter((n) => n.stage?.effect === 'trim').at(-1)!
    await expect(board.locator(`[data-stage="${came.stage.id}"]`).first()).toHaveAttribute('aria-pressed', 'true')
  }
  await board.keyboard.press('Shift+ArrowLeft')
  await expect(row(board, 'Marimba').locator('[data-stage][aria-pressed=true]')).toHaveCount(2)
  const gain = board.getByRole('slider', { name: 'Gain', exact: true })
  await gain.focus()
  await board.keyboard.press('PageDown')
  await expect.poll(async () => (await trims()).every((g) => g < -1)).toBe(true)
  await board.keyboard.press('Control+z')
  await expect.poll(async () => (await trims()).every((g) => g === 0)).toBe(true)
})

test('what was copied last is what is pasted, wherever the focus is; thinning shows its result before it is made', async ({
  board,
  shoal,
}) => {
  await row(board, 'Marimba').getByRole('button', { name: 'Marimba', exact: true }).click()
  await board.keyboard.press('Shift+X')
  await board.getByLabel('Search parameters').fill('pan marimba')
  await expect(board.getByRole('listbox', { name: 'Parameters' }).getByRole('option').first()).toBeVisible()
  await board.keyboard.press('Enter')
  const line = strip(board, 'Pan of Marimba')
  const b = (await line.boundingBox())!
  for (const x of [300, 420]) await board.mouse.dblclick(b.x + x, b.y + 12)
  const points = async () =>
    ((await project(board, shoal)) as unknown as Kept).project.lines.find((l) => l.name === 'pan')?.points.length ?? 0
  await expect.poll(points).toBe(2)
  await line.focus()
  await board.keyboard.press('Control+a')
  await expect(line.locator('circle[r="4.5"]')).toHaveCount(2)
  await board.keyboard.press('Control+c')
  await expect(board.getByText('2 points are kept to be put down.')).toBeVisible()
  const ruler = board.getByRole('region', { name: /^Time/ })
  await ruler.click({ position: { x: 700, y: 24 } })
  await expect(board.getByTestId('bars')).toHaveText(/^\d+\.1\.00$/) // a click on the ruler snaps
  await board.keyboard.press('Control+v')
  await expect.poll(points).toBe(4)

  // thinning says before what it would leave
  await row(board, 'Low horn').getByRole('button', { name: 'Low horn', exact: true }).click()
  await board.keyboard.press('Shift+X')
  await board.getByLabel('Search parameters').fill('level low horn')
  await expect(board.getByRole('listbox', { name: 'Parameters' }).getByRole('option').first()).toBeVisible()
  await board.keyboard.press('Enter')
  const long = strip(board, 'Level of Low horn')
  const at = (await long.boundingBox())!
  await board.mouse.move(at.x + 200, at.y + 44)
  await board.mouse.down()
  await board.mouse.move(at.x + 800, at.y + 44, { steps: 6 })
  await board.mouse.up()
  await board.getByLabel('Menu of the line of Level of Low horn').click()
  await board.getByRole('menuitem', { name: 'Fill rising' }).click()
  const count = async () =>
    ((await project(board, shoal)) as unknown as Kept).project.lines.find((l) => l.name === 'fader')?.points.length ?? 0
  await expect.poll(count).toBeGreaterThan(40)
  const before = await count()
  await board.getByLabel('Menu of the line of Level of Low horn').click()
  await board.getByRole('menuitem', { name: 'Thin out…' }).click()
  await board.getByLabel('At most so far away').fill('3')
  const said = board.getByTestId('thinned')
  await expect(said).toHaveText(/^\d+ to \d+ points, at most [0-3]\.\d+ dB away\.$/)
  const left = Number(/to (\d+)/.exec((await said.textContent())!)![1])
  await board.getByRole('button', { name: 'Thin it' }).click()
  await expect.poll(count).toBeLessThan(before)
  expect(await count()).toBeLessThanOrEqual(left + 4) // and those outside the stretch
  await board.keyboard.press('Control+z')
  await expect.poll(count).toBe(before)
})

test('compared blind nothing tells; a reverb beside a dry path is fully wet; a fork is a preset with its handles', async ({
  board,
  shoal,
}) => {
  await row(board, 'Marimba').getByRole('button', { name: 'Marimba', exact: true }).click()
  await board.keyboard.press('Space')
  await board.getByLabel('Trials of Marimba').click()
  await board.getByRole('menuitem', { name: 'Compare blind' }).click()
  const bench = board.getByRole('region', { name: 'Bench' })
  await expect(board.getByRole('group', { name: 'Trials' })).toHaveText('12')
  await expect(row(board, 'Marimba').getByText('compared blind')).toBeVisible()
  await expect(stagesOf(board, 'Marimba')).toHaveCount(0)
  await expect(bench.locator('[data-node]')).toHaveCount(0)
  for (const key of ['ArrowRight', 'b', 'o', 'w']) await board.keyboard.press(key)
  await expect(board.getByText('These are compared blind: choose one first')).toBeVisible()
  await expect(stagesOf(board, 'Marimba')).toHaveCount(0)
  await board.keyboard.press('y')
  await expect(row(board, 'Marimba').getByText('compared blind')).toBeVisible()
  await board.getByLabel('Choose one of those compared blind').click()
  await board.getByRole('menuitem', { name: 'I choose 2' }).click()
  await expect(board.getByText(/^You chose [AB]: 1 was [AB], 2 was [AB]\.$/)).toBeVisible()
  await expect(stagesOf(board, 'Marimba')).toHaveCount(4)

  await row(board, 'Tide table').getByRole('button', { name: 'Tide table', exact: true }).click()
  await stagesOf(board, 'Tide table').nth(3).click()
  await board.keyboard.press('f') // a path beside a dry one
  await bench
    .getByRole('button', { name: /^Path / })
    .last()
    .click()
  await board.keyboard.press('/')
  await expect(board.getByText(/^Add to the path .+ of Tide table, place 2$/)).toBeVisible()
  await board.keyboard.type('reverb')
  await board.keyboard.press('Enter')
  await expect(board.getByRole('slider', { name: 'Mix', exact: true })).toHaveAttribute('aria-valuenow', '100')
  const laws = async () => JSON.stringify((await project(board, shoal)).project.channels.find((c) => c.name === 'Tide table'))
  await expect.poll(laws).toMatch(/"effect":"reverb"[^}]*\}[^}]*"mixLaw":"blend"/)

  await row(board, 'Choir').locator('[data-fork]').click()
  await board.keyboard.press('w')
  await board.getByRole('button', { name: 'Save', exact: true }).click()
  await board.getByLabel('Name of the preset').fill('Two shores')
  await board.keyboard.press('Enter')
  await expect(board.getByText('Saved as Two shores.')).toBeVisible()
  await board.keyboard.press('Escape')
  const handles = async () => ((await project(board, shoal)) as unknown as Kept).project.handles?.length ?? 0
  const before = await handles()
  await row(board, 'Low horn').locator('[data-fork]').click()
  await board.keyboard.press('w')
  await board.getByRole('option', { name: /Two shores/ }).click()
  await board.getByRole('button', { name: 'Take', exact: true }).click()
  await expect.poll(handles).toBeGreaterThan(before)
})

test('at 1024 px, and at half as large again, everything in the top bar can be reached', async ({ board }) => {
  for (const width of [1280, 1024, 853]) {
    await board.setViewportSize({ width, height: 800 })
    for (const name of ['Undo', 'Redo', 'More', 'Play', /^Menu of the project/]) {
      const box = (await board.getByRole('button', typeof name === 'string' ? { name, exact: true } : { name }).boundingBox())!
      expect(box.x, `${String(name)} at ${width}`).toBeGreaterThanOrEqual(0)
      expect(box.x + box.width, `${String(name)} at ${width}`).toBeLessThanOrEqual(width)
    }
  }
  await board.setViewportSize({ width: 1280, height: 800 })
  await expect.poll(() => clock(board)).toBe(0)
})
