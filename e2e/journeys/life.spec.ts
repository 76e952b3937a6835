import { clock, enter, expect, row, stagesOf, test } from '../support/shoal'
import { wav } from '../support/tone'

type Window = {
  shoalEngine: {
    fault(): void
    onWaiting(waiting: boolean): void
    locate(f: number): void
    watched: string
    memory: { head: SharedArrayBuffer; ring: SharedArrayBuffer }
  }
  device(): void
}

test('from project to project, playing, ten times: each is heard, at equal and at other rates', async ({ board, shoal }) => {
  for (const [name, rate] of [
    ['Skiff', 44100],
    ['Dory', 48000],
  ] as const) {
    const made = await board.request.post(`${shoal.url}/api/projects`, { data: { name, sampleRate: rate, tempo: 100, beats: 4, unit: 4 } })
    const { id } = (await made.json()) as { id: string }
    await board.request.post(`${shoal.url}/api/projects/${id}/audio?name=tone.wav`, { data: wav(rate, 2) })
  }
  for (let i = 0; i < 10; i++) {
    await board.keyboard.press('Space')
    await expect(board.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
    await expect.poll(() => clock(board)).toBeGreaterThan(0.2)
    const loud = await board.evaluate(() =>
      new Float32Array((globalThis as unknown as Window).shoalEngine.memory.ring).some((v) => Math.abs(v) > 0.01),
    )
    expect(loud).toBe(true)
    await board.getByRole('link', { name: 'Shoal' }).click()
    await board.getByRole('link', { name: ['Skiff', 'Dory', 'Slack Water'][i % 3]!, exact: true }).click()
    await expect(board.getByTestId('clock')).toHaveText('0:00.00')
    await expect(board.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  }
})

test('an engine that ends is started again, with all that was heard', async ({ board }) => {
  await stagesOf(board, 'Marimba').nth(0).click()
  await board.getByLabel('Solo Marimba').click()
  await board.keyboard.press('Space')
  await board.getByRole('button', { name: 'Flood', exact: true }).click()
  await expect.poll(() => clock(board)).toBeGreaterThan(60)
  const before = await board.evaluate(() => (globalThis as unknown as Window).shoalEngine.watched)
  expect(before).not.toBe('')
  // it ends while it waits for the song, whose arrival it can no longer tell
  await board.evaluate(() => {
    const { shoalEngine } = globalThis as unknown as Window
    shoalEngine.onWaiting(true)
    shoalEngine.fault()
  })
  await expect(board.getByText('was started again')).toBeVisible()
  await expect(board.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await expect(board.getByRole('button', { name: 'Loop Flood' })).toHaveAttribute('aria-pressed', 'true')
  const again = await clock(board)
  expect(again).toBeGreaterThan(60)
  await expect.poll(() => clock(board)).not.toBe(again)
  // what is heard is the soloed row: the others' levels stand still
  await expect(row(board, 'Marimba').locator('.depth').first()).not.toHaveText('–')
  await expect(board.getByLabel('Solo Marimba')).toHaveAttribute('aria-pressed', 'true')
  expect(await board.evaluate(() => (globalThis as unknown as Window).shoalEngine.watched)).toBe(before)
})

test('what is far too loud is muted, says so at its row, and there are ways out', async ({ board }) => {
  await row(board, 'Marimba').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('/')
  await board.getByLabel('Search effects').fill('trim')
  await board.keyboard.press('Enter')
  const gain = board.getByRole('slider', { name: 'Gain', exact: true })
  await gain.focus()
  await board.keyboard.press('Enter')
  await board.getByLabel('Gain, type a value').fill('24')
  await board.keyboard.press('Enter')
  const level = board.getByRole('slider', { name: 'Level of Marimba', exact: true })
  await level.focus()
  await board.keyboard.press('Enter')
  await board.getByLabel('Level of Marimba, type a value').fill('12')
  await board.keyboard.press('Enter')
  await row(board, 'Main').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('Shift+b') // the limiter is out
  await board.keyboard.press('Space')
  const said = board.getByRole('alert').filter({ hasText: 'Marimba reaches +' })
  await expect(said).toContainText('muted to protect your ears')
  await expect(row(board, 'Marimba').getByText(/muted: \+/)).toBeVisible()
  const at = await clock(board)
  await expect.poll(() => clock(board), 'the song runs on').toBeGreaterThan(at)
  await expect(board.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await said.getByRole('button', { name: 'Hear it anyway at −20 dB' }).click()
  await expect(said).toContainText('heard 20 dB down')
  await said.getByRole('button', { name: 'Turn it down' }).click()
  await expect(said).toBeHidden()
  await expect.poll(async () => Number(await level.getAttribute('aria-valuenow'))).toBeLessThan(0)
  await board.keyboard.press('Space')
  await expect(board.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
})

test('without a sound output the song is followed in silence, in words, until one comes', async ({ page, shoal }) => {
  await page.addInitScript(() => {
    let there = false
    const all = new Set<AudioContext>()
    const Real = AudioContext
    class NoDevice extends Real {
      constructor(options?: AudioContextOptions) {
        super(options)
        all.add(this)
        void super.suspend()
      }
      override resume() {
        return there ? super.resume() : new Promise<void>(() => undefined)
      }
    }
    globalThis.AudioContext = NoDevice
    ;(globalThis as unknown as Window).device = () => {
      there = true
      navigator.mediaDevices.dispatchEvent(new Event('devicechange'))
    }
  })
  await enter(page, shoal, 'Ada')
  await page.keyboard.press('Space')
  const said = page.getByRole('alert').filter({ hasText: 'There is no sound output' })
  await expect(said).toContainText('settings')
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await expect.poll(() => clock(page), 'the song is followed').toBeGreaterThan(1)
  await page.evaluate(() => (globalThis as unknown as Window).device())
  await expect(said).toBeHidden()
  const at = await clock(page)
  await expect.poll(() => clock(page)).toBeGreaterThan(at + 0.5)
})

test('a name is typed at once and taken by Enter; a change without one asks, and then goes through', async ({ page, shoal, browser }) => {
  await page.goto(`${shoal.url}/project/slackwater`)
  await page.getByRole('button', { name: 'Your name?' }).click()
  await expect(page.getByRole('textbox', { name: 'Your name' })).toBeFocused()
  await page.keyboard.type('Ada')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Ada (you) is here')).toBeVisible()

  const other = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await other.goto(`${shoal.url}/project/slackwater`)
  await other.getByLabel('Mute Marimba').click()
  await expect(other.getByText('A change carries a name')).toBeVisible()
  await expect(other.getByRole('textbox', { name: 'Your name' })).toBeFocused()
  await other.keyboard.type('Odile')
  await other.keyboard.press('Enter')
  await expect(other.getByLabel('Mute Marimba')).toHaveAttribute('aria-pressed', 'true')
  await expect(page.getByTestId('last-change')).toHaveText('Odile: Mute Marimba')
  await other.context().close()
})

test('L takes the range that is drawn and ends it; the song stops at its end, or goes on', async ({ board }) => {
  const ruler = board.getByRole('region', { name: /^Time/ })
  const box = (await ruler.boundingBox())!
  await board.mouse.move(box.x + 200, box.y + 24)
  await board.mouse.down()
  await board.mouse.move(box.x + 320, box.y + 24, { steps: 6 })
  await board.mouse.up()
  const loop = board.getByRole('button', { name: /^Loop bars/ })
  await expect(loop).toHaveAttribute('aria-pressed', 'false')
  await board.keyboard.press('l')
  await expect(loop).toHaveAttribute('aria-pressed', 'true')
  // from beyond it, playing begins in it
  await board.evaluate(() => (globalThis as unknown as Window).shoalEngine.locate(48000 * 200))
  await expect.poll(() => clock(board)).toBeGreaterThan(190)
  await board.keyboard.press('Space')
  await expect.poll(() => clock(board)).toBeLessThan(120)
  await expect.poll(() => clock(board)).toBeGreaterThan(10)
  await board.keyboard.press('l')
  await expect(loop).toHaveAttribute('aria-pressed', 'false')

  const end = (await board.getByText(/^of \d+:\d\d$/).textContent())!.match(/of (\d+):(\d+)/)!
  const seconds = Number(end[1]) * 60 + Number(end[2])
  await board.evaluate((s) => (globalThis as unknown as Window).shoalEngine.locate(48000 * (s - 1)), seconds)
  await expect(board.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  expect(Math.abs((await clock(board)) - seconds)).toBeLessThan(1.5)
  await expect(board.getByTestId('bars')).toHaveText(/^\d+\.\d\.\d\d$/)
  await board.keyboard.press('Space')
  await expect.poll(() => clock(board), 'it begins again').toBeLessThan(30)
  await board.getByLabel(/^Menu of the project/).click()
  await board.getByRole('menuitem', { name: 'Go on playing at the end of the song' }).click()
  await board.evaluate((s) => (globalThis as unknown as Window).shoalEngine.locate(48000 * (s - 1)), seconds)
  await expect.poll(() => clock(board)).toBeGreaterThan(seconds + 1.5)
  await expect(board.getByTestId('bars')).toHaveText(/^\d+\.\d\.\d\d$/)
})
