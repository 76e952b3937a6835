import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { type Browser, expect, type Page, test } from '@playwright/test'
import { clock, demoData, knowing, row, Shoal, stagesOf, still } from '../support/shoal'

const folder = join(import.meta.dirname, '../../docs/screenshots')

async function browserOf(browser: Browser): Promise<Page> {
  const page = await (await browser.newContext({ ignoreHTTPSErrors: true, viewport: { width: 1280, height: 800 } })).newPage()
  await knowing(page)
  return page
}

async function account(page: Page, link: string, name: string) {
  await page.goto(link)
  await page.getByLabel('Your name, as others see it').fill(name)
  await page.getByLabel('Password').fill(`seven boats for ${name}`)
  await page.getByRole('button', { name: /^(Go on|Come in)$/ }).click()
}

const more = async (page: Page, what: string) => {
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('menuitem', { name: what, exact: true }).click()
}

test('a crew of three, on several machines', async ({ browser }) => {
  const house = new Shoal(demoData(), true, [], '0.0.0.0:0')
  await house.start()
  const [ada, odile, nils] = [await browserOf(browser), await browserOf(browser), await browserOf(browser)]
  const shoot = (name: string) => ada.screenshot({ path: join(folder, `${name}.png`) })
  await ada.goto(house.url)
  await ada.getByRole('button', { name: 'Sign in' }).waitFor()
  await shoot('sign-in')
  await account(ada, house.first, 'Ada')
  await ada.getByRole('button', { name: 'Ada: account' }).waitFor()
  await ada.goto(`${house.url}/project/slackwater`)
  const links = []
  await ada.getByRole('button', { name: /^Crew/ }).click()
  for (const role of ['engineer', 'listener']) {
    await ada.getByLabel('As what').selectOption(role)
    await ada.getByRole('button', { name: 'Make a link' }).click()
    await expect(ada.getByLabel('The link')).not.toHaveValue(links[0] ?? '')
    links.push(await ada.getByLabel('The link').inputValue())
  }
  await account(odile, links[0]!, 'Odile')
  await account(nils, links[1]!, 'Nils')
  await stagesOf(odile, 'Handbells').nth(1).click()
  await row(nils, 'Choir').getByRole('button', { name: 'Choir', exact: true }).click()
  await odile.getByRole('button', { name: 'Play' }).click()
  await expect.poll(() => clock(odile)).toBeGreaterThan(8)
  await ada.keyboard.press('Escape')
  await ada.getByRole('button', { name: 'Menu of Marimba' }).click()
  await ada.getByRole('menuitem', { name: 'Take it in hand for an hour' }).click()
  await row(ada, 'Choir').getByLabel('Nils: at this row').waitFor()
  await ada.getByRole('button', { name: /^Crew/ }).click()
  await ada.getByLabel('Role of Nils').waitFor()
  await still(ada)
  await shoot('crew')
  await odile.getByRole('button', { name: 'Stop' }).click()

  await stagesOf(nils, 'Choir').last().click()
  await nils.keyboard.press('Shift+Z')
  await nils.getByLabel(/^Say something about/).fill('Is this what makes the second verse so far away?')
  await nils.getByRole('button', { name: 'Ada', exact: true }).click()
  await nils.getByRole('button', { name: 'Say it' }).click()
  await odile.getByRole('button', { name: /^Remarks: 1/ }).click()
  await odile.getByRole('button', { name: 'Answer' }).click()
  await odile.getByLabel(/^Answer about/).fill('Partly. The hall does the rest: hear it without, with 5.')
  await odile.keyboard.press('Control+Enter')
  await ada.keyboard.press('Escape')
  await ada.keyboard.press('g')
  await ada.getByRole('button', { name: /^Remarks: 1, 1 for you/ }).click()
  await ada.getByRole('button', { name: /^Choir: / }).click()
  await still(ada)
  await shoot('remark-night')

  await ada.keyboard.press('g')
  await ada.keyboard.press('Escape')
  await more(ada, 'Versions')
  await ada.getByLabel('Name of the version').fill('Rough mix')
  await ada.keyboard.press('Enter')
  await ada.getByRole('button', { name: 'What changed' }).waitFor()
  await odile.keyboard.press('Escape')
  await odile.getByRole('slider', { name: 'Level of Handbells' }).focus()
  for (let i = 0; i < 4; i++) await odile.keyboard.press('ArrowLeft')
  await stagesOf(odile, 'Low horn').first().click()
  await odile.keyboard.press('b')
  await ada.getByRole('button', { name: 'What changed' }).click()
  await ada.getByText(/is bypassed/).waitFor()
  await ada.getByRole('button', { name: 'Then', exact: true }).click()
  await ada.getByText('You hear “Rough mix”').waitFor()
  await still(ada)
  await shoot('version')
  await house.stop()
  rmSync(house.data, { recursive: true, force: true })
})
