import type { Locator, Page } from '@playwright/test'
import { expect, knowing, named, row, stagesOf, test } from '../support/shoal'
import { wav } from '../support/tone'

/** Chooses of the menu that the other button opens. */
async function menu(page: Page, of: Locator, choice: string, position?: { x: number; y: number }) {
  await of.click({ button: 'right', position })
  await page.getByRole('menuitem', { name: choice }).first().click()
}

/** Adds what a list offers, by its scroll and a press. */
async function add(page: Page, to: string, option: RegExp) {
  await row(page, to)
    .getByRole('button', { name: `Add a stage to ${to}` })
    .click()
  await page.getByRole('option', { name: option }).first().click()
}

const name = (page: Page, of: string) => row(page, of).getByRole('button', { name: of, exact: true }).first()

/** Drags from a place of something to another. */
async function drag(page: Page, of: Locator, a: { x: number; y: number }, b: { x: number; y: number }) {
  const box = (await of.boundingBox())!
  await page.mouse.move(box.x + a.x, box.y + a.y)
  await page.mouse.down()
  await page.mouse.move(box.x + b.x - 10, box.y + b.y, { steps: 4 })
  await page.mouse.move(box.x + b.x, box.y + b.y)
  await page.mouse.up()
}

test('in a new project all that is done often is done by the mouse alone', async ({ page, shoal }) => {
  await knowing(page)
  await page.goto(shoal.url)
  await page.getByRole('button', { name: 'New project' }).click()
  await page.keyboard.type('Mill race') // names are all that is typed
  await page.getByText('Small ensemble').click()
  await page.getByRole('button', { name: 'Make it' }).click()
  await named(page, 'Nell')
  await expect(stagesOf(page, 'Mallets')).toHaveCount(4)
  await page.getByLabel('Import sound').setInputFiles([
    { name: 'Weir.wav', mimeType: 'audio/wav', buffer: wav(48000, 8) },
    { name: 'Sluice.wav', mimeType: 'audio/wav', buffer: wav(48000, 8) },
  ])
  await expect(row(page, 'Sluice')).toBeVisible()

  await test.step('an effect ahead of another, with a preset', async () => {
    await menu(
      page,
      row(page, 'Low horn')
        .getByTitle(/Level here/)
        .nth(1),
      'Add a stage here',
    )
    await page.getByTitle('The presets of Reverb').click()
    await page.getByRole('option', { name: /^Stone hall/ }).click()
    await expect(stagesOf(page, 'Low horn').nth(2)).toHaveAccessibleName('Reverb')
  })

  await test.step('one reverb shared by two rows, one left and one right, dry alone heard', async () => {
    await menu(page, name(page, 'Weir'), 'Send to a new return')
    await page.getByLabel('at 0 dB').click()
    await page.getByRole('button', { name: 'Make the return and the send' }).click()
    const send = row(page, 'Weir').getByTitle(/^Send to Reverb/)
    await expect(send).toContainText('0')
    await send.dragTo(row(page, 'Sluice'))
    await expect(row(page, 'Sluice').getByTitle(/^Send to Reverb/)).toBeVisible()
    for (const [of, x] of [
      ['Weir', -60],
      ['Sluice', 60],
    ] as const) {
      await row(page, of)
        .getByTitle(/^Send to Reverb/)
        .click()
      const pan = page.getByLabel(/^Send from/).getByRole('slider', { name: 'Pan', exact: true })
      const middle = (await pan.boundingBox())!.width / 2
      await drag(page, pan, { x: middle, y: 8 }, { x: middle + x, y: 8 })
      await expect(pan).toHaveAttribute('aria-valuetext', x < 0 ? /^L [3-9]\d/ : /^R [3-9]\d/)
    }
    await name(page, 'Weir').click()
    await page.getByRole('button', { name: /it without its returns/ }).click()
    await expect(page.getByText('You hear Weir without its returns')).toBeVisible()
  })

  await test.step('a stage becomes a send and a return, kept as a preset, used with another effect', async () => {
    await menu(page, stagesOf(page, 'Voices').last(), 'Make it a send and a return')
    await expect(row(page, 'Reverb 2')).toBeVisible()
    for (const to of ['Weir', 'Bells']) {
      await row(page, 'Voices')
        .getByTitle(/^Send to Reverb 2/)
        .dragTo(row(page, to))
      await expect(row(page, to), 'one more than there is room for').toContainText('+1')
    }
    await page.getByRole('button', { name: 'What to do with the chain of Reverb 2' }).click()
    await page.getByRole('menuitem', { name: 'Presets of rows' }).click()
    await page.getByRole('dialog', { name: 'Presets' }).getByRole('button', { name: 'Save' }).click()
    await page.keyboard.type('Late voices')
    await page.getByRole('button', { name: 'Save the present setting' }).click()
    await expect(page.getByText('Saved as Late voices.')).toBeVisible()
    await page.getByRole('button', { name: /^Close/ }).click()
    await menu(page, stagesOf(page, 'Reverb 2'), 'Replace it')
    await page.getByRole('option', { name: /^Chorus/ }).click()
    await expect(stagesOf(page, 'Reverb 2')).toHaveAccessibleName('Chorus')
  })

  await test.step('three bands on rows of their own', async () => {
    await add(page, 'Weir', /3 bands/)
    await menu(page, row(page, 'Weir').locator('[data-fork]'), 'Spread the paths to rows')
    await expect(row(page, 'Weir, High')).toBeVisible()
  })

  await test.step('a line: points, copied, a step', async () => {
    await menu(page, name(page, 'Sluice'), 'A line for…')
    await page
      .getByRole('option', { name: /^Level/ })
      .first()
      .click()
    const line = page.getByRole('group', { name: /^Line of Level of Sluice/ })
    for (const [i, x] of [120, 170, 220].entries()) {
      await line.dblclick({ position: { x, y: 14 + 8 * i } })
      await expect(line).toHaveAccessibleName(new RegExp(`, ${i + 1} points?$`))
    }
    await drag(page, line, { x: 80, y: 44 }, { x: 250, y: 44 })
    await menu(page, line, 'Copy the points')
    await menu(page, page.getByRole('region', { name: /^Time/ }), 'Playhead to here', { x: 600, y: 40 })
    await menu(page, line, 'Put points down at the playhead')
    await expect(line).toHaveAccessibleName(/, 6 points$/)
    await drag(page, line, { x: 280, y: 44 }, { x: 330, y: 44 })
    await menu(page, line, 'Hold a value over the stretch')
    await expect(page.getByRole('textbox', { name: 'Value' })).toBeFocused()
    await page.keyboard.type('-12') // a value is typed; by hand it is dragged
    await page.keyboard.press('Enter')
    await expect(line).toHaveAccessibleName(/, ([89]|10) points$/)
  })

  await test.step('rows slow to a stop', async () => {
    const box = (await row(page, 'Sluice').boundingBox())!
    await page.mouse.move(box.x + 700, box.y + 8)
    await page.mouse.down()
    await page.mouse.move(box.x + 760, box.y + 10, { steps: 4 })
    await page.mouse.move(box.x + 800, box.y + 10)
    await page.mouse.up()
    await menu(page, row(page, 'Sluice'), 'Make a passage of it', { x: 750, y: 8 })
    await page.getByRole('list', { name: 'Kinds of passages' }).getByText('Slow to a stop').click()
    await expect(page.getByRole('button', { name: /^Passage Slow to a stop/ })).toBeVisible()
  })

  await test.step('whole forks and chains from presets', async () => {
    await row(page, 'Bells').getByRole('button', { name: 'Add a stage to Bells' }).click()
    await page.getByRole('button', { name: /^Presets of whole chains/ }).click()
    await page.getByRole('option', { name: /^Inshore and offing/ }).click()
    await expect(row(page, 'Bells').locator('[data-fork]')).toContainText('Depth')
  })

  await test.step('an equaliser first or last, matched, blind', async () => {
    await menu(page, row(page, 'Drum').getByRole('button', { name: 'Gate' }), 'Here or at the other end: blind')
    await expect(row(page, 'Drum')).toContainText('compared blind')
    await page.getByRole('button', { name: 'Choose one of those compared blind' }).click()
    await page.getByRole('menuitem', { name: 'I hear no difference' }).click()
  })

  await test.step('print, treat, print again', async () => {
    await name(page, 'Sluice').click()
    await page.getByRole('button', { name: 'Print', exact: true }).click()
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Print/ })
      .last()
      .click()
    await expect(row(page, 'Sluice print')).toBeVisible()
    await add(page, 'Sluice print', /^Filter/)
    await menu(page, name(page, 'Sluice print'), 'Print to a new track')
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Print/ })
      .last()
      .click()
    await expect(row(page, 'Sluice print print')).toBeVisible()
  })
})
