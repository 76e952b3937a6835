import type { Page } from '@playwright/test'
import { clock, enter, expect, project, row, stagesOf, test } from '../support/shoal'

test('two windows see the changes of each other, undo is each own, and the same control ends equal in both', async ({
  board,
  shoal,
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const other = await context.newPage()
  await enter(other, shoal, 'Odile')
  await expect(board.getByLabel('Odile is here')).toBeVisible()
  // where they are
  await row(other, 'Handbells').getByRole('button', { name: 'Handbells', exact: true }).click()
  await expect(row(board, 'Handbells').getByLabel('Odile: at this row')).toBeVisible()
  await row(other, 'Choir').getByRole('button', { name: 'Choir', exact: true }).click()
  await expect(row(board, 'Choir').getByLabel('Odile: at this row')).toBeVisible()
  await expect(row(board, 'Handbells').getByLabel('Odile: at this row')).toHaveCount(0)

  await board.getByLabel('Mute Marimba').click()
  await expect(other.getByLabel('Mute Marimba')).toHaveAttribute('aria-pressed', 'true') // how soon: see bench
  await expect(other.getByTestId('last-change')).toHaveText('Ada: Mute Marimba')

  await other.getByLabel('Mute Choir', { exact: true }).click()
  await expect(board.getByLabel('Mute Choir', { exact: true })).toHaveAttribute('aria-pressed', 'true')
  await board.keyboard.press('Control+z') // takes back Ada's, not Odile's
  await expect(other.getByLabel('Mute Marimba')).toHaveAttribute('aria-pressed', 'false')
  await expect(board.getByLabel('Mute Choir', { exact: true })).toHaveAttribute('aria-pressed', 'true')
  await board.keyboard.press('Control+Shift+z')
  await expect(other.getByLabel('Mute Marimba')).toHaveAttribute('aria-pressed', 'true')

  // both move the same control; both windows end at one value
  const sliders = [board, other].map((p) => p.getByRole('slider', { name: 'Level of Handbells' }))
  for (const s of sliders) await s.focus()
  for (let i = 0; i < 6; i++) {
    await sliders[0]!.press('ArrowRight')
    await sliders[1]!.press('ArrowLeft')
  }
  await expect
    .poll(async () => {
      const [a, b] = await Promise.all(sliders.map((s) => s.getAttribute('aria-valuenow')))
      const kept = (await project(board, shoal)).project.channels.find((c) => c.name === 'Handbells')!.fader
      return Number(a) === kept && Number(b) === kept
    })
    .toBe(true)

  // solo belongs to a window
  await board.getByLabel('Solo Choir', { exact: true }).click()
  await expect(other.getByLabel('Solo Choir', { exact: true })).toHaveAttribute('aria-pressed', 'false')

  await board.reload()
  await expect(board.getByLabel('Mute Choir', { exact: true })).toHaveAttribute('aria-pressed', 'true')
  await context.close()
})

test('the logbook is searched by what was done and by whom, and goes out as a table', async ({ board }) => {
  for (const name of ['Marimba', 'Low horn', 'Frame drum']) {
    const mute = board.getByLabel(`Mute ${name}`)
    const was = await mute.getAttribute('aria-pressed')
    await mute.click()
    await expect(mute).not.toHaveAttribute('aria-pressed', was!)
  }
  await board.getByRole('button', { name: 'More', exact: true }).click()
  await board.getByRole('menuitem', { name: 'Logbook' }).click()
  const book = board.getByRole('dialog', { name: 'Logbook' })
  await expect(book.getByRole('row').first()).toContainText('ute Frame drum')
  await book.getByLabel('Search the logbook').fill('ada horn')
  await expect(book.getByRole('row').first()).toContainText('ute Low horn')
  await book.getByLabel('Search the logbook').fill('nothing like it')
  await expect(book).toContainText('Nothing goes by “nothing like it”.')
  const file = board.waitForEvent('download')
  await book.getByRole('link', { name: 'Export as a table' }).click()
  expect((await file).suggestedFilename()).toBe('Slack Water logbook.csv')
})

test('a change to something that somebody just removed is refused in words', async ({ board, shoal }) => {
  await stagesOf(board, 'Marimba').nth(1).click()
  const p = await (await board.request.get(`${shoal.url}/api/projects/slackwater`)).json()
  const id = p.project.channels[0].chain.nodes[1].stage.id
  const remove = { label: 'Remove', changes: [{ type: 'node.remove', do: { id } }] }
  await board.request.post(`${shoal.url}/api/projects/slackwater/changes`, { data: remove })
  const again = await board.request.post(`${shoal.url}/api/projects/slackwater/changes`, { data: remove })
  expect(again.status()).toBe(422)
  expect(again.headers()['content-type']).toContain('application/problem+json')
  expect((await again.json()).detail).toContain('somebody has removed it')
  await expect(stagesOf(board, 'Marimba')).toHaveCount(3)
  await expect(row(board, 'Marimba')).toBeVisible()
})

test('two windows route at once and end in the same document; a send to a removed return is refused in words', async ({
  board,
  shoal,
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const other = await context.newPage()
  await enter(other, shoal, 'Odile')
  const doc = async () => (await (await board.request.get(`${shoal.url}/api/projects/slackwater`)).json()).project
  const make = (page: typeof board, row: string, name: string) => async () => {
    await page.getByRole('button', { name: row, exact: true }).click()
    await page.keyboard.press('s')
    await page.getByRole('dialog').getByRole('textbox').fill(name)
    await page.getByRole('button', { name: 'Make the return and the send' }).click()
  }
  await Promise.all([make(board, 'Marimba', 'Mill race')(), make(other, 'Handbells', 'Sluice')()])
  for (const page of [board, other]) for (const name of ['Mill race', 'Sluice']) await expect(row(page, name)).toBeVisible()
  const rows = (page: typeof board) => page.locator('[data-row]').evaluateAll((l) => l.map((e) => e.getAttribute('data-row')))
  expect(await rows(board)).toEqual(await rows(other))
  const p = await doc()
  expect(p.channels.map((c: { id: string }) => c.id)).toEqual(await rows(board))

  const sluice = p.channels.find((c: { name: string }) => c.name === 'Sluice')
  await other.getByRole('button', { name: 'Sluice', exact: true }).click()
  await other.getByLabel('Menu of Sluice').click()
  await other.getByRole('menuitem', { name: 'Remove', exact: true }).click()
  await expect(row(board, 'Sluice')).toHaveCount(0)
  const send = { id: '', to: sluice.id, pre: false, level: -12, pan: 0, mute: false }
  const late = await board.request.post(`${shoal.url}/api/projects/slackwater/changes`, {
    data: { label: 'Send', changes: [{ type: 'send.add', do: { channel: p.channels[0].id, index: 0, send } }] },
  })
  expect(late.status()).toBe(422)
  expect((await late.json()).detail).toBe('the return is no longer there: somebody has removed it')
  await context.close()
})

const more = async (page: Page, what: string) => {
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('menuitem', { name: what, exact: true }).click()
}

test('one hears along with another, until a gesture of one’s own', async ({ board, shoal, browser }) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const odile = await context.newPage()
  await enter(odile, shoal, 'Odile')
  await odile.getByRole('button', { name: 'Play' }).click()
  await expect.poll(() => clock(odile)).toBeGreaterThan(1)
  await odile.getByLabel('Solo Marimba').click()
  await board.getByRole('button', { name: /^Crew/ }).click()
  await expect(board.locator('[data-playhead="Odile"]')).toBeAttached()
  await board.getByRole('button', { name: 'Hear along' }).click()
  await expect(board.getByLabel('Solo Marimba')).toHaveAttribute('aria-pressed', 'true')
  await expect(board.getByRole('button', { name: 'Stop' })).toBeVisible()
  await expect.poll(async () => Math.abs((await clock(odile)) - (await clock(board)))).toBeLessThanOrEqual(1)
  await odile.getByLabel('Solo Marimba').click()
  await expect(board.getByLabel('Solo Marimba')).toHaveAttribute('aria-pressed', 'false')
  await odile.getByRole('button', { name: 'Stop' }).click()
  await expect(board.getByRole('button', { name: 'Play' })).toBeVisible()
  await board.getByLabel('Solo Choir', { exact: true }).click()
  await expect(board.getByText('You hear on your own again: Odile goes on.')).toBeVisible()
  await expect(board.getByRole('button', { name: /^Along with/ })).toHaveCount(0)
  await context.close()
})

test('a remark is made about a stage, answered, settled; its place may go', async ({ board, shoal, browser }) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const odile = await context.newPage()
  await enter(odile, shoal, 'Odile')
  await stagesOf(board, 'Marimba').nth(1).click()
  await board.keyboard.press('Shift+Z')
  await board.getByLabel('Say something about Marimba: Compressor').fill('Too fast for the mallets?')
  await board.getByRole('button', { name: 'Odile', exact: true }).click()
  await board.keyboard.press('Control+Enter')
  await odile.getByRole('button', { name: 'Remarks: 1, 1 for you' }).click()
  const said = odile.getByRole('article', { name: 'Remark about Marimba: Compressor, for you' })
  await said.getByRole('button', { name: 'Marimba: Compressor' }).click()
  await expect(stagesOf(odile, 'Marimba').nth(1)).toHaveAttribute('aria-pressed', 'true')
  await odile.getByRole('article').getByRole('button', { name: 'Answer' }).click()
  await odile.getByLabel('Answer about Marimba: Compressor').fill('Slower now.')
  await odile.keyboard.press('Control+Enter')
  await expect(board.getByRole('button', { name: 'Remarks: 1, 1 for you' })).toBeVisible()
  await stagesOf(board, 'Marimba').nth(1).click()
  await board.keyboard.press('Delete')
  await expect(odile.getByText('is no longer there')).toBeVisible()
  await expect(odile.getByText('Slower now.')).toBeVisible()
  await odile.getByRole('button', { name: 'Settle it' }).click()
  await expect(odile.getByText('Slower now.')).toHaveCount(0)
  await odile.getByRole('button', { name: 'Also what is settled: 1' }).click()
  await expect(odile.getByText('Settled by Odile')).toBeVisible()
  await context.close()
})

test('a version is heard beside now, compared in words, and gone back to row by row', async ({ board }) => {
  await more(board, 'Versions')
  await board.getByLabel('Name of the version').fill('Rough mix')
  await board.keyboard.press('Enter')
  await expect(board.getByRole('listitem').filter({ hasText: 'Rough mix' })).toBeVisible()
  await board.getByLabel('Mute Choir', { exact: true }).click()
  await board.getByLabel('Mute Low horn').click()
  await board.getByRole('button', { name: 'What changed' }).click()
  await expect(board.getByText('Choir is muted')).toBeVisible()
  await board.getByRole('button', { name: 'Then' }).click()
  await expect(board.getByText('You hear “Rough mix”')).toBeVisible()
  await board.getByRole('button', { name: 'Now', exact: true }).click()
  await expect(board.getByText('You hear “Rough mix”')).toHaveCount(0)
  await board.getByRole('button', { name: 'Choir back to what it was' }).click()
  await expect(board.getByLabel('Mute Choir', { exact: true })).toHaveAttribute('aria-pressed', 'false')
  await expect(board.getByLabel('Mute Low horn')).toHaveAttribute('aria-pressed', 'true')
  await board.getByRole('button', { name: 'All of it back' }).click()
  await expect(board.getByText('Nothing has changed since.')).toBeVisible()
  await board.keyboard.press('Escape')
  await board.getByRole('button', { name: 'Undo' }).hover()
  await expect(board.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', /Takes back your “Back to Rough mix”/)
  await board.getByRole('button', { name: 'Undo' }).click()
  await expect(board.getByLabel('Mute Low horn')).toHaveAttribute('aria-pressed', 'true')
  await more(board, 'Logbook')
  await board.getByLabel('On which row').selectOption({ label: 'Choir' })
  const log = board.getByRole('dialog', { name: 'Logbook' })
  await log.getByRole('button', { name: 'Mute Choir' }).click()
  await expect(log.getByText('Choir is muted')).toBeVisible()
  await board.getByRole('button', { name: 'The whole project back to before this' }).click()
  await expect(board.getByLabel('Mute Low horn')).toHaveAttribute('aria-pressed', 'false')
})

test('a row in somebody’s hand is changed by others once they have asked', async ({ board, shoal, browser }) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const odile = await context.newPage()
  await enter(odile, shoal, 'Odile')
  await board.getByRole('button', { name: 'Menu of Marimba' }).click()
  await board.getByRole('menuitem', { name: 'Take it in hand for an hour' }).click()
  await expect(row(odile, 'Marimba').getByText('in Ada’s hand')).toBeVisible()
  await odile.getByLabel('Mute Marimba').click()
  await expect(odile.getByText(/is in Ada's hand for another \d+ minutes: ask first/)).toBeVisible()
  await expect(board.getByLabel('Mute Marimba')).toHaveAttribute('aria-pressed', 'false')
  await odile.getByRole('button', { name: 'I have asked: change it' }).click()
  await expect(board.getByLabel('Mute Marimba')).toHaveAttribute('aria-pressed', 'true')
  await context.close()
})
