import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { enter, expect, program, row, test } from '../support/shoal'
import { wav } from '../support/tone'

test('a sound file becomes a track, resampled; a damaged one is refused in words and leaves nothing', async ({ board }) => {
  const pick = board.getByLabel('Import sound')
  await pick.setInputFiles({ name: 'Winch.wav', mimeType: 'audio/wav', buffer: wav(44100, 2) })
  await expect(row(board, 'Winch')).toBeVisible()
  await expect(board.getByRole('img', { name: 'Clip Winch' })).toBeVisible()
  await pick.setInputFiles({ name: 'Broken.wav', mimeType: 'audio/wav', buffer: wav(44100, 2).subarray(0, 9000) })
  await expect(board.getByText(/Broken.wav: the WAV file is cut short/)).toBeVisible()
  await pick.setInputFiles({ name: 'Letter.mp3', mimeType: 'audio/mpeg', buffer: Buffer.from('Dear harbour master, ') })
  await expect(board.getByText(/this is not a WAV, FLAC or MP3 file/)).toBeVisible()
  await expect(row(board, 'Broken')).toHaveCount(0)
})

test('a project travels as a bundle, to the command line and back', async ({ board, shoal }, info) => {
  const r = await board.request.get(`${shoal.url}/api/projects/slackwater/bundle`)
  const file = info.outputPath('slack.zip')
  writeFileSync(file, await r.body())
  execFileSync(program, [
    'print',
    file,
    '--channel',
    'Handbells',
    '--from',
    '35',
    '--to',
    '40',
    '--format',
    'wav24',
    '--out',
    info.outputPath('out'),
  ])
  const m = JSON.parse(execFileSync(program, ['measure', '--json', info.outputPath('out', 'Handbells.wav')]).toString())
  expect(m.seconds).toBeCloseTo(5, 3)
  expect(m.peak).toBeGreaterThan(-40)
  await board.goto(`${shoal.url}/`)
  await board.getByLabel('Import a bundle').setInputFiles(file)
  await expect(board.getByRole('link', { name: 'Slack Water' })).toHaveCount(2, { timeout: 20_000 })
})

test('tempo and sections go out as MIDI and come back, and undo brings the old ones back', async ({ board }, info) => {
  await board.getByLabel('Menu of the project Slack Water').click()
  const [download] = await Promise.all([
    board.waitForEvent('download'),
    board.getByRole('menuitem', { name: 'Export tempo and sections as MIDI' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('Slack Water.mid')
  const file = info.outputPath('slack.mid')
  await download.saveAs(file)
  await board.getByTitle('Quarter notes a minute; click to type').click()
  await board.getByLabel('Tempo in quarter notes a minute').fill('100')
  await board.keyboard.press('Enter')
  await expect(board.getByText('100.0')).toBeVisible()
  await board.getByLabel('A MIDI file for tempo and sections').setInputFiles(file)
  await expect(board.getByText('Tempo, meter and sections are those of slack.mid now.', { exact: false })).toBeVisible()
  await expect(board.getByText('88.0')).toBeVisible()
  await board
    .getByLabel('A MIDI file for tempo and sections')
    .setInputFiles({ name: 'odd.mid', mimeType: 'audio/midi', buffer: Buffer.from('no music at all') })
  await expect(board.getByText('it does not begin with MThd', { exact: false })).toBeVisible()
})

test('projects are made, renamed, duplicated, binned and taken back', async ({ page, shoal }) => {
  await enter(page, shoal, 'Ada')
  await page.goto(shoal.url)
  await page.getByRole('button', { name: 'New project' }).click()
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Lock gates')
  await page.getByLabel('Meter').fill('3/4')
  await page.getByRole('button', { name: 'Make it' }).click()
  await expect(page.getByText('Lock gates')).toBeVisible()
  await expect(row(page, 'Main')).toBeVisible()
  await page.goto(shoal.url)
  const todo = async (project: string, what: string) => {
    await page.getByRole('button', { name: `What can be done to ${project}`, exact: true }).click()
    await page.getByRole('menuitem', { name: what }).click()
  }
  await todo('Lock gates', 'Rename')
  await page.getByLabel('Name of the project').fill('Sluice')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Sluice' })).toBeVisible()
  await expect(page.getByRole('listitem').filter({ hasText: 'Sluice' })).toContainText('changed by Ada, just now')
  await todo('Sluice', 'Duplicate')
  await expect(page.getByRole('link', { name: 'Sluice copy' })).toBeVisible()
  await todo('Sluice copy', 'To the bin')
  await expect(page.getByRole('heading', { name: 'In the bin' })).toBeVisible()
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(page.getByRole('link', { name: 'Sluice copy' })).toBeVisible()
})
