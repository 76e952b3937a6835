import type { Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Hand } from '../support/hand'
import { expect, row, stagesOf, test } from '../support/shoal'

const table = join(import.meta.dirname, '../../docs/gestures.md')

/** Something that is done often: how many gestures it took once, how many are wished for, and how it goes. */
type Task = { says: string; once: string; wished: string; how: string; run: (h: Hand, page: Page) => Promise<void> }

const add = (page: Page, to: string) => row(page, to).getByRole('button', { name: `Add a stage to ${to}` })
const dialog = (page: Page, name: string) => page.getByRole('dialog', { name })
const name = (page: Page, of: string) => row(page, of).getByRole('button', { name: of, exact: true }).first()
/** The list of effects when its presets have come. */
const listed = (page: Page) => expect(page.getByPlaceholder('Search effects and presets: echo, warm, level…')).toBeFocused()

/** The list of effects behind a row's chain, words, and Enter when they have found something. */
async function addFound(h: Hand, page: Page, to: string, words: string, option: RegExp) {
  await h.click(add(page, to))
  await listed(page)
  await h.find(words, option)
}

const tasks: Task[] = [
  {
    says: 'an effect put in ahead of another, with a preset',
    once: '7',
    wished: '3',
    how: 'other button on the figure before it, *Add a stage here*, the preset’s name and Enter',
    run: async (h, page) => {
      await h.menu(
        row(page, 'Low horn')
          .getByTitle(/Level here/)
          .nth(1),
        'Add a stage here',
      )
      await listed(page)
      await h.find('Stone hall', /^Stone hall/)
      await expect(stagesOf(page, 'Low horn').nth(1)).toHaveAccessibleName('Reverb')
    },
  },
  {
    says: 'one reverb shared by two rows, at 0 dB, one left and one right, dry alone heard',
    once: '18',
    wished: '6',
    how: 'two rows, S, *at 0 dB*, *Make it, sent from left to right*; then D',
    run: async (h, page) => {
      await h.click(name(page, 'Harbour'))
      await h.click(name(page, 'Bell buoy'), { modifiers: ['Shift', 'Control'] })
      await h.key('s')
      await h.click(page.getByLabel('at 0 dB'))
      await h.click(page.getByRole('button', { name: 'Make it, sent from left to right' }))
      await expect(row(page, 'Harbour').getByTitle(/^Send to Reverb/)).toContainText('0')
      await expect(page.getByLabel('Bench').getByRole('heading', { name: 'Reverb', exact: true }).first()).toBeVisible()
      await h.key('d')
      await expect(page.getByText('You hear what goes into Reverb, without it')).toBeVisible()
    },
  },
  {
    says: 'a stage becomes a send and a return with its balance, copied to two rows, kept as a preset, used again with another effect',
    once: '27',
    wished: '8',
    how: 'other button, *Make it a send and a return*; its send dragged to two rows; Alt W, a new name and Enter; R, the other effect',
    run: async (h, page) => {
      await h.menu(row(page, 'Handbells').getByRole('button', { name: 'Delay' }), 'Make it a send and a return')
      await expect(row(page, 'Delay')).toBeVisible()
      for (const to of ['Choir afar', 'Shore']) {
        await row(page, 'Handbells')
          .getByText(/^\+\d$/)
          .hover() // what does not fit opens under the pointer
        await h.carry(
          page.getByTitle(/^Send to Delay/).first(),
          row(page, to)
            .getByTitle(/Level here/)
            .first(),
        )
        await expect(row(page, to).getByTitle(/^Send to Delay/)).toBeVisible()
      }
      await h.key('Alt+w')
      await expect(dialog(page, 'Presets').getByLabel('Search presets')).toBeFocused()
      await h.type('Late bells')
      await expect(page.getByText('Saved as Late bells.')).toBeVisible()
      await expect(dialog(page, 'Presets')).toBeHidden()
      await h.key('r')
      await h.type('chorus')
      await expect(stagesOf(page, 'Delay')).toHaveAccessibleName('Chorus')
    },
  },
  {
    says: 'a filter that moves one way on the left and the other way on the right',
    once: '14',
    wished: '5',
    how: '+, *parting ways* and Enter: a preset that ships',
    run: async (h, page) => {
      await addFound(h, page, 'Harbour', 'parting ways', /^Parting ways/)
      await expect(stagesOf(page, 'Harbour').last()).toHaveAccessibleName('Filter')
    },
  },
  {
    says: 'three bands on rows of their own',
    once: '5',
    wished: '4',
    how: '+, *3 bands* and Enter; on the fork the other button, *Spread the paths to rows*',
    run: async (h, page) => {
      await addFound(h, page, 'Choir afar', 'fork: 3 bands', /3 bands/)
      const fork = row(page, 'Choir afar').locator('[data-fork]').last()
      await expect(fork).toBeVisible()
      await h.menu(fork, 'Spread the paths to rows')
      await expect(row(page, 'Choir afar, High')).toBeVisible()
    },
  },
  {
    says: 'untouched, crushed, and bright-and-crushed, blended from one loop',
    once: '40',
    wished: '9',
    how: '+, *third strand* and Enter: a preset that ships',
    run: async (h, page) => {
      await addFound(h, page, 'Frame drum', 'third strand', /third strand/)
      await expect(row(page, 'Frame drum').locator('[data-fork]').last()).toContainText('Three strands')
    },
  },
  {
    says: 'dry and wet as paths, the wet one alone coloured and moved in tempo',
    once: '30',
    wished: '7',
    how: '+, *turning hall* and Enter: a preset that ships',
    run: async (h, page) => {
      await addFound(h, page, 'Handbells', 'turning hall', /^Turning hall/)
      await expect(row(page, 'Handbells').locator('[data-fork]').last()).toContainText('Turning hall')
    },
  },
  {
    says: 'a line: four points, copied later and lowered as one, a step for a phrase',
    once: '22',
    wished: '9',
    how: 'other button on the level, *Draw its line*; four points; the line dragged with Ctrl Shift; a stretch, the value',
    run: async (h, page) => {
      await h.menu(row(page, 'Bell buoy').getByRole('slider', { name: 'Level of Bell buoy' }), 'Draw its line')
      const line = page.getByRole('group', { name: /^Line of Level of Bell buoy/ })
      for (const [i, [x, y]] of [
        [120, 20],
        [170, 12],
        [220, 24],
        [270, 16],
      ].entries()) {
        await h.double(line, { x: x!, y: y! })
        await expect(line).toHaveAccessibleName(new RegExp(`, ${i + 1} points?$`))
      }
      await h.drag(line, { x: 145, y: 16 }, line, { x: 385, y: 25 }, ['Control', 'Shift'])
      await expect(line).toHaveAccessibleName(/, 8 points$/)
      const copied = line.locator('circle[r="4.5"]')
      await expect(copied).toHaveCount(4)
      expect(Number(await copied.first().getAttribute('cy'))).toBeGreaterThan(24) // lower than that it is of
      await h.drag(line, { x: 280, y: 44 }, line, { x: 330, y: 44 })
      await h.type('-12')
      await expect(line).toHaveAccessibleName(/, 1[0-2] points$/)
    },
  },
  {
    says: 'two spaces in a fork with their settings, kept and used again',
    once: '100',
    wished: '24, or 2 from its preset',
    how: '+, *inshore* and Enter: a preset that ships',
    run: async (h, page) => {
      await addFound(h, page, 'Tide table', 'inshore and offing', /^Inshore/)
      await expect(row(page, 'Tide table').locator('[data-fork]').last()).toContainText('Depth')
    },
  },
  {
    says: 'three rows slow to a stop, silence, no tail',
    once: '8',
    wished: '4',
    how: 'a range drawn over the rows with Shift, Shift L, *stop* and Enter',
    run: async (h, page) => {
      const [from, to] = [row(page, 'Marimba'), row(page, 'Low horn')]
      await h.drag(from, { x: 700, y: 8 }, to, { x: 800, y: 8 }, ['Shift'])
      await h.key('Shift+L')
      await expect(page.getByRole('list', { name: 'Kinds of passages' }).getByRole('listitem').first()).toBeVisible()
      await h.type('slow to a stop')
      await expect(page.getByRole('button', { name: /^Passage Slow to a stop/ })).toBeVisible()
    },
  },
  {
    says: 'an equaliser first or last, matched, blind',
    once: '7',
    wished: '2',
    how: 'other button on it, *Here or at the other end: blind*',
    run: async (h, page) => {
      await h.menu(row(page, 'Bell buoy').getByRole('button', { name: 'Equaliser' }), 'Here or at the other end: blind')
      await expect(row(page, 'Bell buoy')).toContainText('compared blind')
      await page.getByRole('button', { name: 'Choose one of those compared blind' }).click()
      await page.getByRole('menuitem', { name: 'I hear no difference' }).click()
    },
  },
  {
    says: 'print, treat, print again',
    once: '6',
    wished: '3',
    how: 'Alt P; + on the print’s row; an effect or a chain and Alt Enter',
    run: async (h, page) => {
      await name(page, 'Harbour').click()
      await h.key('Alt+p')
      const called = 'Harbour print'
      await expect(row(page, called)).toBeVisible({ timeout: 60_000 })
      await h.click(add(page, called))
      await listed(page)
      await h.find('under water', /^Under water/, 'Alt+Enter')
      await expect(stagesOf(page, called)).toHaveCount(3)
      await expect(row(page, 'Harbour print print')).toBeVisible({ timeout: 60_000 })
    },
  },
  {
    says: 'keyboard only: add, move earlier, type a value, bypass, undo (keys; a text is one)',
    once: '38',
    wished: '12',
    how: '/, text, Enter, Alt ←, Enter, Enter, text, Enter, Esc, B, Ctrl Z',
    run: async (h, page) => {
      await name(page, 'Low horn').click()
      await h.key('/')
      await listed(page)
      await h.text('trim')
      await h.key('Enter')
      const trim = row(page, 'Low horn').getByRole('button', { name: /^Trim/ })
      await expect(trim).toBeVisible()
      await h.key('Alt+ArrowLeft')
      await expect(stagesOf(page, 'Low horn').last()).not.toHaveAccessibleName('Trim')
      await h.key('Enter')
      await h.key('Enter')
      await h.text('-3')
      await h.key('Enter')
      await h.key('Escape')
      await h.key('b')
      await expect(trim).toHaveAccessibleName('Trim, bypassed')
      await h.key('Control+z')
      await expect(trim).toHaveAccessibleName('Trim')
    },
  },
]

const head = `# Gestures

What is done often, and how many gestures it takes: clicks, drags, picks, keys, and values that are typed with the Enter behind
them. The table is made by the journey that does it all and counts (\`make gestures\`); a test holds it.

| what is done | once | wished | now | how |
|---|---|---|---|---|
`

test('what is done often takes few gestures: docs/gestures.md is what a hand has counted', async ({ board }) => {
  const lines: string[] = []
  for (const t of tasks)
    await test.step(t.says, async () => {
      const hand = new Hand(board)
      await t.run(hand, board)
      lines.push(`| ${t.says} | ${t.once} | ${t.wished} | **${hand.count}** | ${t.how} |`)
      await board.keyboard.press('Escape')
    })
  const text = `${head}${lines.join('\n')}\n`
  if (process.env.GESTURES) writeFileSync(table, text)
  expect(text).toBe(readFileSync(table, 'utf8'))
})
