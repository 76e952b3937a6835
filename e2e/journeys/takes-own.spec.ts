import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '../support/shoal'
import { framesOf, record, recorded, stopped } from '../support/takes'
import { wav } from '../support/tone'

// what the browser hears is a tone of 440 Hz at -12.2 dB
const heard = join(mkdtempSync(join(tmpdir(), 'shoal-heard-')), 'tone.wav')
writeFileSync(heard, wav(48000, 4))

test.use({
  permissions: ['microphone'],
  launchOptions: async ({ launchOptions }, use) => {
    const more = ['--use-fake-device-for-media-stream', `--use-file-for-fake-audio-capture=${heard}`]
    await use({ ...launchOptions, args: [...(launchOptions.args ?? []), ...more] })
  },
})

test('the browser’s own input is recorded: what it hears lies where the song was', async ({ board, shoal }) => {
  await board.getByRole('button', { name: 'Tide table', exact: true }).click()
  await board.getByRole('button', { name: 'Recorded from Reader' }).click()
  await board.getByRole('menuitem', { name: /^Own input/ }).click()
  await expect(board.getByRole('button', { name: 'Ready', exact: true })).toBeVisible()
  await expect(board.getByTestId('input-says'), 'its level is seen before anything plays').toContainText('−12.')
  await board.getByRole('button', { name: 'Recorded from own input' }).click()
  const delay = board.getByLabel('Delay that is taken off, in ms')
  await delay.fill('100')
  await delay.press('Enter')
  await board.keyboard.press('Escape')
  await record(board, 3)
  await stopped(board)
  const { takes } = await recorded(board, shoal)
  const take = takes.at(-1)!
  expect(framesOf(take)).toBeGreaterThan(2.5 * 48000)
  // the file is a tone of that level without end; the way in makes another of it, which is no matter here
  expect(take.loud).toBeGreaterThan(-19)
  expect(take.loud).toBeLessThan(-13)
  expect(take.runs[0]!.song, 'what was played in the first tenth of a second belongs before the song').toBe(0)
  expect(take.runs[0]!.input).toBeGreaterThan(4000)
})
