import type { Page } from '@playwright/test'
import { expect } from '../support/expect'
import { axeFinds, brightest, cutTexts, smallTargets, smallTexts, spaceOut } from '../support/looks'
import { row, stagesOf, still, test } from '../support/shoal'

const bench = (page: Page) => page.getByRole('region', { name: 'Bench' })

const more = async (page: Page, what: string) => {
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('menuitem', { name: what, exact: true }).click()
}

/** Each main view, from the board on: what is selected or opened. */
const views: [string, (page: Page) => Promise<unknown>][] = [
  ['nothing selected', async () => undefined],
  ['a row', (p) => row(p, 'Choir').getByRole('button', { name: 'Choir', exact: true }).click()],
  ['an equaliser', (p) => stagesOf(p, 'Frame drum').nth(1).click()],
  ['a fork', (p) => row(p, 'Frame drum').locator('[data-fork]').click()],
  [
    'a path',
    (p) =>
      bench(p)
        .getByRole('button', { name: /^Path Crush/ })
        .click(),
  ],
  ['effects', (p) => p.keyboard.press('/')],
  ['presets', (p) => p.keyboard.press('Shift+W')],
  ['a print', (p) => p.keyboard.press('p')],
  ['soundings', (p) => p.keyboard.press('z')],
  ['remarks', (p) => p.keyboard.press('Shift+Z')],
  ['crew', (p) => p.getByRole('button', { name: 'Crew' }).click()],
  ['versions', (p) => more(p, 'Versions')],
  ['logbook', (p) => more(p, 'Logbook')],
  ['rows', (p) => p.keyboard.press('r')],
  ['keys', (p) => p.keyboard.press('?')],
  ['a return', (p) => row(p, 'Stone hall').getByRole('button', { name: 'Stone hall', exact: true }).click()],
  ['a passage', (p) => p.getByRole('button', { name: 'Passage Held breath' }).click()],
]

/** Where by night other colours lie on each other than elsewhere. */
const byNight = ['a row', 'an equaliser', 'a path', 'effects', 'soundings', 'a passage']

/** Where there is least room for words. */
const spaced = ['nothing selected', 'a row', 'an equaliser', 'a fork', 'a path', 'a return', 'a passage']

for (const theme of ['light', 'dark'] as const) {
  test(`everything can be read and reached, ${theme}`, async ({ board }) => {
    await board.emulateMedia({ colorScheme: theme })
    const first = views[1]![0] // all of the page is looked at once, then only what changes
    for (const [name, go] of views.filter(([name]) => theme === 'light' || byNight.includes(name))) {
      await board.keyboard.press('Escape')
      await go(board)
      await still(board)
      if (theme === 'light') {
        expect.soft(await smallTexts(board, 12), `${name}: texts under 12 px`).toEqual([])
        expect.soft(await smallTargets(board, 24), `${name}: targets under 24 px`).toEqual([])
      }
      expect.soft(await axeFinds(board, name === first ? 'body' : 'section[aria-label=Bench]'), `${name}: axe`).toEqual([])
    }
  })
}

test('with wider text spacing no name is cut', async ({ board }) => {
  await spaceOut(board)
  for (const [name, go] of views.filter(([name]) => spaced.includes(name))) {
    await board.keyboard.press('Escape')
    await go(board)
    await still(board)
    expect.soft(await cutTexts(board), name).toEqual([])
  }
})

test('the list of projects and the first minute can be read and reached', async ({ page, shoal }) => {
  for (const theme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme: theme })
    await page.goto(shoal.url)
    await expect(page.getByRole('link', { name: 'Slack Water' })).toBeVisible()
    expect(await smallTexts(page, 12), theme).toEqual([])
    expect(await smallTargets(page, 24), theme).toEqual([])
    expect(await axeFinds(page, 'main'), theme).toEqual([])
    await page.goto(`${shoal.url}/project/slackwater`)
    await expect(page.getByRole('region', { name: 'The first minute' })).toBeVisible()
    await still(page)
    expect(await smallTargets(page, 24), theme).toEqual([])
    expect(await axeFinds(page, '[aria-label="The first minute"]'), theme).toEqual([])
  }
})

test('in a dark room nothing large is bright', async ({ board }) => {
  await board.emulateMedia({ colorScheme: 'dark' })
  await row(board, 'Choir').getByRole('button', { name: 'Choir', exact: true }).click()
  await board.keyboard.press('/')
  await still(board)
  expect(await brightest(board, 120), 'larger than a button').toBeLessThan(0.2)
  await board.emulateMedia({ colorScheme: 'light' })
  await still(board)
  expect(await brightest(board, 120), 'by day it is paper').toBeGreaterThan(0.5)
})
