import { rmSync } from 'node:fs'
import { type Browser, type Page, test as base } from '@playwright/test'
import { expect } from '../support/expect'
import { demoData, knowing, row, Shoal } from '../support/shoal'
import { axeFinds, smallTargets, smallTexts } from '../support/looks'

/** A Shoal with the demo that others reach over the network. */
const test = base.extend<{ house: Shoal }>({
  house: async ({}, use) => {
    const s = new Shoal(demoData(), true, [], '0.0.0.0:0')
    await s.start()
    await use(s)
    await s.stop()
    rmSync(s.data, { recursive: true, force: true })
  },
})

/** Somebody's browser, on a machine of their own, which trusts the authority. */
async function browserOf(browser: Browser): Promise<Page> {
  const context = await browser.newContext({ ignoreHTTPSErrors: true, permissions: ['clipboard-read', 'clipboard-write'] })
  const page = await context.newPage()
  await knowing(page)
  return page
}

async function account(page: Page, link: string, name: string, act: string) {
  await page.goto(link)
  await page.getByLabel('Your name, as others see it').fill(name)
  await page.getByLabel('Password').fill(`seven boats for ${name}`)
  await page.getByRole('button', { name: act }).click()
}

const crew = (page: Page) => page.getByRole('button', { name: /^Crew/ }).click()

/** Makes a link into the project that is open. */
async function invite(page: Page, role: string): Promise<string> {
  await page.getByLabel('As what').selectOption(role)
  const was = await page.getByLabel('The link').count()
  const before = was ? await page.getByLabel('The link').inputValue() : ''
  await page.getByRole('button', { name: 'Make a link' }).click()
  await expect(page.getByLabel('The link')).not.toHaveValue(before)
  return page.getByLabel('The link').inputValue()
}

test('people come in by links, and each does what their role lets them', async ({ house, browser }) => {
  const plain = await browserOf(browser)
  await plain.goto(house.url.replace('https', 'http'))
  await expect(plain.getByRole('heading')).toContainText(house.url)
  await expect(plain.getByText(/^[0-9A-F:]{95}$/)).toBeVisible()
  await plain.context().close()

  const ada = await browserOf(browser)
  await ada.goto(house.url)
  await ada.getByLabel('Name').fill('Ada')
  await ada.getByLabel('Password').fill('no such password')
  await ada.getByRole('button', { name: 'Sign in' }).click()
  await expect(ada.getByRole('alert')).toHaveText('there is no account of this name with this password')
  expect(await axeFinds(ada, 'body')).toEqual([])
  await account(ada, house.first, 'Ada', 'Go on')
  await ada
    .getByRole('link', { name: /Slack Water/ })
    .first()
    .click()
  await expect(ada.getByLabel('Ada (you) is here')).toBeVisible()
  await crew(ada)
  const engineer = await invite(ada, 'engineer')
  const listener = await invite(ada, 'listener')
  expect(await smallTexts(ada, 12)).toEqual([])
  expect(await smallTargets(ada, 24)).toEqual([])
  expect(await axeFinds(ada, 'section[aria-label=Bench]')).toEqual([])

  const odile = await browserOf(browser)
  await account(odile, engineer, 'Odile', 'Come in')
  await odile.getByLabel('Mute Marimba').click()
  await expect(ada.getByLabel('Mute Marimba')).toHaveAttribute('aria-pressed', 'true')
  await odile.goto(engineer)
  await expect(odile.getByText('used already')).toBeVisible()
  await odile.goBack()

  const nils = await browserOf(browser)
  await account(nils, listener, 'Nils', 'Come in')
  await expect(nils.getByText('You are a listener here')).toBeVisible()
  await nils.getByLabel('Mute Low horn').click()
  await expect(nils.getByText(/you are a listener here: .* Ada can make you one/)).toBeVisible()
  await row(nils, 'Choir').getByRole('button', { name: 'Choir', exact: true }).click()
  await nils.keyboard.press('Shift+Z')
  await nils.getByLabel('Say something about Choir').fill('Too far back in the second verse.')
  await nils.getByRole('button', { name: 'Ada', exact: true }).click()
  await nils.getByRole('button', { name: 'Say it' }).click()
  await expect(ada.getByRole('button', { name: 'Remarks: 1, 1 for you' })).toBeVisible()

  await ada.getByLabel('Role of Nils').selectOption('engineer')
  await expect(nils.getByText('You are a listener here')).toHaveCount(0)
  await nils.getByLabel('Mute Low horn').click()
  await expect(ada.getByLabel('Mute Low horn')).toHaveAttribute('aria-pressed', 'true')

  await expect(odile.getByLabel('Odile (you) is here')).toBeVisible()
  await ada.getByRole('listitem').filter({ hasText: 'Odile' }).getByRole('button', { name: 'Take out' }).click()
  await expect(odile.getByText('Ada has taken you out of this project.')).toBeVisible()
  await odile.getByRole('link', { name: 'All projects' }).click()
  await expect(odile.getByText('There is no project yet.')).toBeVisible()
  await odile.getByRole('button', { name: 'Odile: account' }).click()
  await odile.getByRole('menuitem', { name: 'Sign out' }).click()
  await odile.getByLabel('Name').fill('odile')
  await odile.getByLabel('Password').fill('seven boats for Odile')
  await odile.getByRole('button', { name: 'Sign in' }).click()
  await expect(odile.getByRole('button', { name: 'Odile: account' })).toBeVisible()

  // who keeps it sees what was done, and lets somebody choose another password
  await ada.getByRole('link', { name: 'Shoal' }).click()
  await ada.getByRole('button', { name: 'Ada: account' }).click()
  await ada.getByRole('menuitem', { name: 'People of this Shoal' }).click()
  await ada.getByText('What was done').click()
  await expect(ada.getByRole('row').filter({ hasText: 'took somebody out' })).toContainText('Slack Water')
  expect(await axeFinds(ada, 'dialog')).toEqual([])
  await ada.getByRole('listitem').filter({ hasText: 'Nils' }).getByRole('button', { name: 'Another password' }).click()
  const reset = await ada.getByLabel('The link').inputValue()
  await nils.goto(reset)
  await nils.getByLabel('Password').fill('eight boats for Nils')
  await nils.getByRole('button', { name: 'Go on' }).click()
  await expect(nils.getByRole('button', { name: 'Nils: account' })).toBeVisible()
})
