import { execFileSync } from 'node:child_process'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { clock, expect, program, project, row, test } from '../support/shoal'

const measure = (file: string) =>
  JSON.parse(execFileSync(program, ['measure', '--json', file]).toString()) as {
    integrated: number
    seconds: number
    format: { kind: string; bits: number }
  }

test('a track is printed to a new one, which plays and nulls against what it replaced', async ({ board, shoal }, info) => {
  test.setTimeout(180_000)
  // the mix before
  const main = (await project(board, shoal)).project.channels.find((c) => c.kind === 'main')!
  const api = board.request
  const exportMain = async (name: string) => {
    const spec = { channel: main.id, from: 48000 * 4, to: 48000 * 12, tail: false, target: 'file', format: 'wav32f', mute: false }
    const job = await (await api.post(`${shoal.url}/api/projects/slackwater/prints`, { data: spec })).json()
    await expect
      .poll(
        async () =>
          ((await (await api.get(`${shoal.url}/api/projects/slackwater/prints`)).json()) as { id: string; state: string }[]).find(
            (p) => p.id === job.id,
          )!.state,
        { timeout: 60_000 },
      )
      .toBe('done')
    const file = info.outputPath(name)
    writeFileSync(file, await (await api.get(`${shoal.url}/api/prints/${job.id}/file`)).body())
    return file
  }
  const before = await exportMain('before.wav')
  await row(board, 'Marimba').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('p')
  await board.getByRole('dialog').getByRole('combobox').first().selectOption({ label: 'The whole song' })
  await board.getByRole('button', { name: 'Print', exact: true }).last().click()
  await expect(board.getByText('printed to a new track')).toBeVisible({ timeout: 60_000 })
  await expect(row(board, 'Marimba print')).toBeVisible()
  await expect(board.getByLabel('Mute Marimba', { exact: true })).toHaveAttribute('aria-pressed', 'true')
  const after = await exportMain('after.wav')
  const [a, b] = [floats(before), floats(after)]
  expect(b.length).toBe(a.length)
  let worst = 0
  for (let i = 0; i < a.length; i++) worst = Math.max(worst, Math.abs(a[i]! - b[i]!))
  expect(20 * Math.log10(worst + 1e-12)).toBeLessThan(-110)
  // and it plays
  await board.keyboard.press('Space')
  await expect.poll(() => clock(board)).toBeGreaterThan(1)
  await expect(row(board, 'Marimba print').locator('.depth').first()).not.toHaveText('–')
})

/** The samples of a 32-bit float WAV file. */
function floats(file: string): Float32Array {
  const b = readFileSync(file)
  const at = b.indexOf('data') + 8
  return new Float32Array(b.buffer.slice(b.byteOffset + at, b.byteOffset + b.length - ((b.length - at) % 4)))
}

test('a print shows progress and can be cancelled; nothing is left behind', async ({ board, shoal }) => {
  const before = await project(board, shoal)
  await row(board, 'Main').scrollIntoViewIfNeeded()
  await row(board, 'Main').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('p')
  await board.getByRole('dialog', { name: 'Export the main output' }).getByRole('button', { name: 'Export', exact: true }).click()
  const tray = board.getByRole('status', { name: 'Prints' })
  await expect(tray.getByRole('progressbar')).toHaveAccessibleName(/[1-9]\d* % printed/)
  await tray.getByRole('button', { name: 'Cancel' }).click()
  await expect(board.getByText('cancelled; nothing is left behind')).toBeVisible()
  const now = await project(board, shoal)
  expect(now.revision).toBe(before.revision)
  await expect.poll(() => readdirSync(join(shoal.data, 'exports'))).toEqual([])
})

test('a print survives a server killed in the middle, and no acknowledged change is lost', async ({ board, shoal }) => {
  const api = board.request
  const p = await project(board, shoal)
  const harbour = p.project.channels.find((c) => c.name === 'Harbour')!
  const spec = { channel: harbour.id, from: 0, to: 48000 * 140, tail: true, target: 'track', format: '', mute: true }
  const made = await api.post(`${shoal.url}/api/projects/slackwater/prints`, { data: { ...spec, format: undefined } })
  expect(made.ok()).toBeTruthy()
  let acknowledged = 0
  for (let i = 1; i <= 25; i++) {
    const r = await api.post(`${shoal.url}/api/projects/slackwater/changes`, {
      data: { label: 'Level', changes: [{ type: 'param.set', do: { owner: harbour.id, name: 'fader', value: -i } }] },
    })
    if (r.ok()) acknowledged = i
  }
  await shoal.stop('SIGKILL')
  const old = shoal.url
  await shoal.start()
  expect(shoal.url).not.toBe('')
  const cookies = await board.context().cookies(old)
  await board.context().addCookies(cookies.map((c) => ({ ...c, url: shoal.url, domain: undefined!, path: undefined! })))
  const after = await project(board, shoal)
  expect(after.project.channels.find((c) => c.id === harbour.id)!.fader).toBe(-acknowledged)
  await expect
    .poll(async () => (await project(board, shoal)).project.channels.some((c) => c.name === 'Harbour print'), { timeout: 40_000 })
    .toBe(true)
  const names = (await project(board, shoal)).project.channels.filter((c) => c.name.startsWith('Harbour print'))
  expect(names.length).toBe(1)
})

test('the main output is exported as FLAC, and other tools agree on what it is', async ({ board }, info) => {
  test.setTimeout(180_000) // the whole mix is rendered, on whatever machine this is
  await row(board, 'Main').scrollIntoViewIfNeeded()
  await row(board, 'Main').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('p')
  await board.getByRole('combobox').first().selectOption({ label: 'Section Slack' })
  await board.getByRole('combobox').nth(1).selectOption({ label: 'FLAC, 24 bit' })
  await board.getByRole('dialog', { name: 'Export the main output' }).getByRole('button', { name: 'Export', exact: true }).click()
  const link = board.getByRole('button', { name: 'Save the file' })
  await expect(link).toBeVisible({ timeout: 120_000 })
  const [download] = await Promise.all([board.waitForEvent('download'), link.click()])
  expect(download.suggestedFilename()).toBe('Slack Water - Main.flac')
  const file = join(info.outputDir, 'main.flac')
  await download.saveAs(file)
  // what has been said is not said again
  await board.reload()
  await expect(board.getByLabel('Mute Marimba')).toBeVisible()
  await expect(link).toHaveCount(0)
  const m = measure(file)
  expect(m.format).toMatchObject({ kind: 'flac', bits: 24 })
  expect(m.seconds).toBeGreaterThan(28)
  expect(m.integrated).toBeGreaterThan(-26)
  expect(m.integrated).toBeLessThan(-12)
})
