import type { Page } from '@playwright/test'
import { enter, expect, project, row, stagesOf, test } from '../support/shoal'

const bench = (page: Page) => page.getByRole('region', { name: 'Bench' })

/** Rows that are seen from top to bottom. */
const seenRows = (page: Page) =>
  page.locator('[data-row]').evaluateAll((rows) => {
    const box = rows[0]!.parentElement!.getBoundingClientRect()
    return rows.filter((r) => {
      const b = r.getBoundingClientRect()
      return b.top >= box.top - 1 && b.bottom <= box.bottom + 1
    }).length
  })

test('plumbs hang under stages: dragged, stepped, typed, reached by a key and left again', async ({ board, shoal }) => {
  await row(board, 'Frame drum').getByRole('button', { name: 'Frame drum', exact: true }).click()
  const plumb = bench(board).getByRole('slider', { name: 'Threshold of Gate' })
  const stored = async () =>
    (await project(board, shoal)).project.channels.find((c) => c.name === 'Frame drum')!.chain.nodes[0]!.stage.params.threshold
  await expect(plumb).toHaveAttribute('aria-valuenow', '-46')
  const box = (await plumb.boundingBox())!
  await board.mouse.move(box.x + 8, box.y + box.height * 0.5)
  await board.mouse.down()
  await board.mouse.move(box.x + 8, box.y + box.height * 0.2, { steps: 4 })
  await board.mouse.up()
  await expect.poll(stored).toBeGreaterThan(-40)
  await bench(board)
    .getByRole('button', { name: /^Gate, place 1/ })
    .focus()
  await board.keyboard.press('Shift+Enter')
  await expect(plumb).toBeFocused()
  const before = (await stored())!
  await board.keyboard.press('ArrowUp')
  await expect.poll(stored).toBeGreaterThan(before)
  await board.keyboard.press('Enter')
  await board.getByLabel('Threshold of Gate, type a value').fill('-50')
  await board.keyboard.press('Enter')
  await expect.poll(stored).toBe(-50)
  await board.keyboard.press('Escape')
  await expect(bench(board).getByRole('button', { name: /^Gate, place 1/ })).toBeFocused()
})

test('nine rows are seen with the bench on a row, all of them without', async ({ board }) => {
  expect(await seenRows(board)).toBeGreaterThanOrEqual(13)
  await row(board, 'Marimba').getByRole('button', { name: 'Marimba', exact: true }).click()
  expect(await seenRows(board)).toBeGreaterThanOrEqual(9)
})

test('the scales of every effect are all in sight, sheet by sheet', async ({ board, shoal }) => {
  const effects = (await (await board.request.get(`${shoal.url}/api/effects`)).json()) as {
    id: string
    name: string
    version: number
    newest: number
    whole?: boolean
  }[]
  const harbour = (await project(board, shoal)).project.channels.find((c) => c.name === 'Harbour')!
  const now = effects.filter((e) => e.version === e.newest && !e.whole)
  for (const [i, e] of now.entries()) {
    const done = await board.request.post(`${shoal.url}/api/projects/slackwater/changes`, {
      headers: { origin: shoal.url },
      data: {
        label: `Add ${e.name}`,
        changes: [
          { type: 'chain.put', do: { owner: harbour.id, nodes: [], bypass: false } },
          { type: 'stage.add', do: { id: `all-${i}`, owner: harbour.id, index: 0, effect: e.id } },
        ],
      },
    })
    expect(done.ok(), `${e.name}: ${await done.text()}`).toBe(true)
    await stagesOf(board, 'Harbour').first().click()
    const panel = board.locator(`[data-panel="all-${i}"]`)
    await expect(panel).toBeVisible()
    for (const tab of [null, ...(await panel.getByRole('tab').all())]) {
      await tab?.click()
      const hidden = await panel.evaluate(
        (el) =>
          [...el.querySelectorAll('*')].filter((x) => {
            const s = getComputedStyle(x)
            return /auto|scroll/.test(s.overflowY) && x.scrollHeight > x.clientHeight + 1
          }).length,
      )
      expect.soft(hidden, `${e.name}${tab ? `, ${await tab.textContent()}` : ''}: something lies below an edge`).toBe(0)
    }
  }
})

test('edges are dragged and remembered, and everything is drawn larger', async ({ board }) => {
  await row(board, 'Marimba').getByRole('button', { name: 'Marimba', exact: true }).click()
  const edge = board.getByRole('separator', { name: 'Height of the bench' })
  const head = board.getByRole('separator', { name: 'Width of the heads of rows' })
  await edge.focus()
  await board.keyboard.press('ArrowUp')
  await expect(edge).toHaveAttribute('aria-valuenow', '262')
  const box = (await head.boundingBox())!
  await board.mouse.move(box.x + 12, box.y + 20)
  await board.mouse.down()
  await board.mouse.move(box.x + 72, box.y + 20, { steps: 3 })
  await board.mouse.up()
  await expect(head).toHaveAttribute('aria-valuenow', '228')
  await board.getByLabel('More', { exact: true }).click()
  await board.getByRole('menuitem', { name: /^Everything larger/ }).click()
  await board.reload()
  await row(board, 'Marimba').getByRole('button', { name: 'Marimba', exact: true }).click()
  await expect(edge).toHaveAttribute('aria-valuenow', '262')
  await expect(head).toHaveAttribute('aria-valuenow', '228')
  // a press in the middle of the ruler is still the middle of the song
  const time = (await board.getByRole('region', { name: /^Time: click/ }).boundingBox())!
  await board.mouse.click(time.x + time.width / 2, time.y + time.height - 6)
  await expect(board.getByTestId('clock')).toHaveText(/^1:1[01]\./)
})

test('a row folds to a line and opens its air; rows are found, hidden and shown from their list', async ({ board }) => {
  const marimba = row(board, 'Marimba')
  const high = async () => (await marimba.boundingBox())!.height
  await marimba.getByRole('button', { name: 'Marimba', exact: true }).click()
  const usual = await high()
  await board.keyboard.press('Shift+ArrowDown')
  await expect.poll(high).toBeGreaterThan(usual + 50)
  await board.keyboard.press('Shift+ArrowUp')
  await board.keyboard.press('Shift+ArrowUp')
  await expect.poll(high).toBeLessThan(usual - 10)
  await expect(stagesOf(board, 'Marimba').first()).toBeVisible()
  await board.keyboard.press('Escape')
  await board.keyboard.press('r')
  const list = board.getByRole('dialog', { name: 'Rows' })
  await list.getByLabel('Choose Harbour').check()
  await list.getByLabel('Choose Bell buoy').check()
  await list.getByRole('button', { name: 'Hide 2' }).click()
  await expect(row(board, 'Harbour')).toHaveCount(0)
  await expect(row(board, 'Bell buoy')).toHaveCount(0)
  await list.getByRole('button', { name: 'Show Harbour' }).click()
  await expect(row(board, 'Harbour')).toBeVisible()
  await list.getByLabel('Search rows').fill('choir af')
  await board.keyboard.press('Enter')
  await expect(bench(board).getByRole('heading', { name: 'Choir afar' }).first()).toBeVisible()
})

test('what is asked stands beside the board, which goes on', async ({ board }) => {
  await row(board, 'Marimba').getByRole('button', { name: 'Marimba', exact: true }).click()
  await board.keyboard.press('p')
  const card = board.getByRole('dialog', { name: 'Print Marimba' })
  await expect(card).toBeVisible()
  await board.getByLabel('Mute Handbells').click()
  await expect(board.getByLabel('Mute Handbells')).toHaveAttribute('aria-pressed', 'true')
  await expect(card).toBeVisible()
  const [a, b] = [(await card.boundingBox())!, (await row(board, 'Marimba').boundingBox())!]
  expect(b.y + b.height, 'it does not lie over the row that it is about').toBeLessThanOrEqual(a.y + 1)
  await board.keyboard.press('Escape')
  await expect(card).toHaveCount(0)
})

test('what somebody else moves is seen to be theirs', async ({ board, shoal, browser }) => {
  await row(board, 'Marimba').getByRole('button', { name: 'Marimba', exact: true }).click()
  const context = await browser.newContext()
  const other = await context.newPage()
  await enter(other, shoal, 'Bo')
  const level = other.getByRole('slider', { name: 'Level of Marimba', exact: true })
  await level.focus()
  await other.keyboard.press('ArrowLeft')
  await expect(bench(board).getByRole('slider', { name: 'Level', exact: true })).toHaveAttribute('aria-valuetext', /just moved by Bo/)
  await context.close()
})

test('drawn twice as large nothing is out of reach: the page scrolls, and never sideways', async ({ board }) => {
  await board.setViewportSize({ width: 640, height: 400 })
  await stagesOf(board, 'Harbour').first().click() // a longer chain folds here
  const panel = board.getByRole('group', { name: 'Equaliser on Harbour' })
  for (const control of [
    panel.getByLabel('Acts on'),
    panel.getByRole('switch', { name: 'Ring out' }),
    board.getByRole('button', { name: 'Send to', exact: true }),
    board.getByRole('button', { name: 'Redo' }),
    board.getByRole('button', { name: 'Play', exact: true }),
  ]) {
    await control.scrollIntoViewIfNeeded()
    await expect(control).toBeInViewport({ ratio: 0.9 })
  }
  expect(await board.evaluate(() => document.getElementById('root')!.scrollWidth)).toBeLessThanOrEqual(640)
})
