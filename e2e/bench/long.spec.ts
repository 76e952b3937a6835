import { execFileSync } from 'node:child_process'
import type { Page } from '@playwright/test'
import { row, test } from '../support/shoal'

/* A session of hours, speeded up: what is done in it over and over, and what all of it holds after each quarter. Figures for
   people to read. */

const ROUNDS = 45

/** What a person does in some minutes: listens here and there, edits, opens and closes what there is to open. */
async function minutes(page: Page, i: number) {
  const name = ['Marimba', 'Handbells', 'Choir', 'Frame drum'][i % 4]!
  await row(page, name).getByRole('button', { name, exact: true }).first().click()
  await page.keyboard.press('Space')
  await page.keyboard.press('.')
  await page.keyboard.press('x')
  await page
    .getByRole('slider', { name: `Level of ${name}`, exact: true })
    .first()
    .press(i % 2 ? 'ArrowUp' : 'ArrowDown')
  for (const key of [';', '?', '/', 'z', 'Shift+W']) {
    await page.keyboard.press('Escape')
    await page.keyboard.press(key)
    await page.waitForTimeout(60)
  }
  await page.keyboard.press('Escape')
  await row(page, name).locator('[data-stage]').first().click()
  for (const key of ['b', 'Delete']) {
    await page.keyboard.press(key)
    await page.waitForTimeout(60)
    await page.keyboard.press('Control+z')
    await page.waitForTimeout(60)
  }
  await row(page, name).getByRole('button', { name, exact: true }).first().click()
  await page.keyboard.press('x')
  await page.waitForTimeout(250)
  await page.keyboard.press('Space')
}

test('a session of hours, speeded up', async ({ board: page, shoal }) => {
  test.setTimeout(1_200_000)
  const session = await page.context().newCDPSession(page)
  await session.send('HeapProfiler.enable')
  await page.keyboard.press('Home')
  for (let quarter = 0; quarter <= 4; quarter++) {
    const begun = Date.now()
    if (quarter) for (let i = 0; i < ROUNDS; i++) await minutes(page, i)
    const took = Date.now() - begun
    await session.send('HeapProfiler.collectGarbage')
    const heap = await page.evaluate(() => (performance as unknown as { memory: { usedJSHeapSize: number } }).memory.usedJSHeapSize)
    const nodes = (await session.send('Memory.getDOMCounters')).nodes
    const held = await page.evaluate(() => (globalThis as unknown as { shoalEngine: { held: number } }).shoalEngine.held)
    const rss = Number(execFileSync('ps', ['-o', 'rss=', '-p', String(shoal.pid)]).toString()) / 1000
    console.log(
      `bench: a long session, after ${quarter * ROUNDS} rounds of edits and panels: page ${(heap / 1e6).toFixed(1)} MB and ${nodes} nodes, engine ${(held / 1e6).toFixed(0)} MB, server ${rss.toFixed(0)} MB${quarter ? `, a round ${(took / ROUNDS).toFixed(0)} ms` : ''}`,
    )
  }
})
