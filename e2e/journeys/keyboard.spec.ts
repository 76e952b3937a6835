import type { Page } from '@playwright/test'
import { clock, expect, knowing, named, row, stagesOf, test } from '../support/shoal'

/** Presses keys, one behind the other. */
async function press(page: Page, ...keys: string[]) {
  for (const k of keys) await page.keyboard.press(k)
}

/** Types words into a list and takes what it has found. */
async function find(page: Page, words: string, option: string | RegExp) {
  await page.keyboard.type(words)
  await page.getByRole('option', { name: option, selected: true }).waitFor()
  await press(page, 'Enter')
}

/** Presses Tab until something has the focus. */
async function tabTo(page: Page, name: string | RegExp, most = 40) {
  const there = page.locator(':focus')
  for (let i = 0; i < most; i++) {
    if (await there.and(page.getByRole('button', { name })).count()) return
    if (await there.and(page.getByRole('slider', { name, exact: true })).count()) return
    if (await there.and(page.getByLabel(name)).count()) return
    await press(page, 'Tab')
  }
  throw new Error(`Tab did not lead to ${name}`)
}

/** The playhead a bar on. */
async function onward(page: Page) {
  const before = await clock(page)
  await press(page, '.')
  await expect.poll(() => clock(page)).toBeGreaterThan(before)
}

/** Selects a row by arrow keys. */
async function selectRow(page: Page, name: string) {
  const title = page.getByLabel('Bench').getByRole('heading', { name, exact: true }).first()
  for (const way of ['ArrowUp', 'ArrowDown'])
    for (let i = 0; i < 16; i++) {
      if (await title.isVisible()) return
      await press(page, way)
    }
  await expect(title).toBeVisible()
}

test('in a new project all that is done often is done by keys alone', async ({ page, shoal }) => {
  await knowing(page)
  await page.goto(shoal.url)
  await expect(page.getByRole('button', { name: 'New project' })).toBeVisible()
  await tabTo(page, 'New project')
  await press(page, 'Enter')
  await expect(page.getByText('Small ensemble')).toBeVisible()
  await page.keyboard.type('Weir by keys')
  await press(page, 'Tab', 'ArrowDown', 'ArrowDown', 'Enter')
  await named(page, 'Nell')
  await expect(stagesOf(page, 'Mallets')).toHaveCount(4)

  await test.step('an effect ahead of another, with a preset', async () => {
    await selectRow(page, 'Low horn')
    await press(page, '/')
    await find(page, 'Stone hall', /^Stone hall/)
    await expect(stagesOf(page, 'Low horn').last()).toHaveAccessibleName('Reverb')
    await expect(stagesOf(page, 'Low horn').last()).toHaveAttribute('aria-pressed', 'true')
    await press(page, 'Alt+ArrowLeft')
    await expect(stagesOf(page, 'Low horn').last()).not.toHaveAccessibleName('Reverb')
  })

  await test.step('one reverb shared by two rows, one left and one right, dry alone heard', async () => {
    await selectRow(page, 'Mallets')
    await press(page, 'Control+Shift+ArrowDown', 's')
    await tabTo(page, 'at 0 dB')
    await press(page, 'Space')
    await tabTo(page, 'Make it, sent from left to right')
    await press(page, 'Enter')
    await expect(page.getByLabel('Bench').getByRole('heading', { name: 'Reverb', exact: true }).first()).toBeVisible()
    await press(page, 'd')
    await expect(page.getByText('You hear what goes into Reverb, without it')).toBeVisible()
    await press(page, 'Escape')
  })

  await test.step('a stage becomes a send and a return, kept as a preset, used with another effect', async () => {
    await selectRow(page, 'Voices')
    await press(page, 'ArrowLeft', ';')
    await find(page, 'make it a send', /^Make it a send and a return/)
    await expect(page.getByLabel('Bench').getByRole('heading', { name: 'Reverb 2', exact: true }).first()).toBeVisible()
    await press(page, 'Alt+w')
    await expect(page.getByLabel('Search presets')).toBeFocused()
    await page.keyboard.type('Late voices')
    await press(page, 'Enter')
    await expect(page.getByText('Saved as Late voices.')).toBeVisible()
    await press(page, 'r')
    await find(page, 'chorus', /^Chorus/)
    await expect(stagesOf(page, 'Reverb 2')).toHaveAccessibleName('Chorus')
  })

  await test.step('three bands on rows of their own', async () => {
    await selectRow(page, 'Bells')
    await press(page, '/')
    await find(page, 'fork: 3 bands', /3 bands/)
    await expect(page.getByRole('button', { name: 'Menu of the fork' })).toBeVisible()
    await press(page, ';')
    await find(page, 'spread the paths', /^Spread the paths to rows/)
    await expect(row(page, 'Bells, High')).toBeAttached()
  })

  await test.step('a line: points, copied, a value', async () => {
    await selectRow(page, 'Drum')
    await press(page, 'Shift+X')
    await find(page, 'level drum', /^Level/)
    const line = page.getByRole('group', { name: /^Line of Level of Drum/ })
    await expect(line).toBeFocused()
    await press(page, 'i')
    await expect(line).toHaveAccessibleName(/, 1 point$/)
    await page.keyboard.type('-3')
    await press(page, 'Enter')
    await expect(line).toBeFocused()
    await onward(page)
    await press(page, 'i')
    await expect(line).toHaveAccessibleName(/, 2 points$/)
    await page.keyboard.type('-12')
    await press(page, 'Enter')
    await expect(line).toBeFocused()
    await press(page, 'Control+a', 'Control+c')
    await onward(page)
    await onward(page)
    await press(page, 'Control+v')
    await expect(line).toHaveAccessibleName(/, 4 points$/)
    await press(page, 'ArrowLeft', 'ArrowUp')
    await expect(line).toHaveAccessibleName(/, 4 points$/)
  })

  await test.step('an equaliser first or last, matched, blind', async () => {
    await press(page, 'Escape', 'Escape') // lets go of the point, then of the line
    await selectRow(page, 'Mallets')
    await press(page, 'ArrowRight', ';')
    await find(page, 'blind', /^Here or at the other end: blind/)
    await expect(row(page, 'Mallets')).toContainText('compared blind')
  })
})
