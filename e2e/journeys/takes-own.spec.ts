import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { enter, expect, hearing as test } from '../support/shoal'
import { framesOf, longer, record, recorded, stopped } from '../support/takes'
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

type Hooked = { hear: MediaStream }

test('its delay is measured by a click that goes out and comes in, and taken off: what is played to the click lands on it', async ({
  page,
  shoal,
}) => {
  // a lead from the output to the input, 80 ms long
  await page.addInitScript(() => {
    const connect = AudioNode.prototype.connect as (this: AudioNode, ...to: unknown[]) => AudioNode
    const leads = new WeakMap<BaseAudioContext, AudioNode>()
    AudioNode.prototype.connect = function (this: AudioNode, ...to: unknown[]) {
      if (to[0] === this.context.destination) {
        let lead = leads.get(this.context)
        if (!lead) {
          const out = (this.context as AudioContext).createMediaStreamDestination()
          ;(globalThis as unknown as Hooked).hear = out.stream
          lead = new DelayNode(this.context, { delayTime: 0.08, maxDelayTime: 1 })
          connect.call(lead, out)
          leads.set(this.context, lead)
        }
        connect.call(this, lead)
      }
      return connect.apply(this, to)
    } as AudioNode['connect']
    navigator.mediaDevices.getUserMedia = () => Promise.resolve((globalThis as unknown as Hooked).hear)
  })
  await enter(page, shoal, 'Ada')
  for (const name of ['Shore', 'Stone hall', 'Far echo', 'Marimba', 'Harbour'])
    await page.getByLabel(`Mute ${name}`, { exact: true }).click()
  await page.keyboard.press('Space') // the output is there once something has played
  await longer(page, 0.5)
  await page.keyboard.press('Space')
  await page.getByRole('button', { name: 'Tide table', exact: true }).click()
  await page.getByRole('button', { name: 'Recorded from Reader' }).click()
  await page.getByRole('menuitem', { name: /^Own input/ }).click()
  await page.getByRole('button', { name: 'Recorded from own input' }).click()
  await page.getByRole('menuitem', { name: /Measure its delay/ }).click()
  const says = page.getByText(/What is played arrives [0-9.]+ ms late/)
  await expect(says).toBeVisible()
  const late = Number(/([0-9.]+) ms/.exec((await says.textContent())!)![1])
  expect(late).toBeGreaterThan(80)
  expect(late).toBeLessThan(400)

  await page.keyboard.press('Home')
  await page.keyboard.press('4')
  await record(page, 4)
  await stopped(page)
  const { takes } = await recorded(page, shoal)
  const take = takes.at(-1)!
  const onsets = await strokes(page, shoal.url, take.untouched)
  expect(onsets.length).toBeGreaterThan(4)
  // the demo's beats are eighths at 88: where each is heard in the song, the distance to the nearest one
  const beat = (60 / 88 / 2) * 48000
  let worst = 0
  for (const at of onsets) {
    const run = take.runs.find((r) => at >= r.input && at < r.input + r.frames)
    if (!run) continue
    const song = run.song + at - run.input
    const off = Math.abs(song / beat - Math.round(song / beat)) * beat
    worst = Math.max(worst, off)
  }
  await page.getByRole('link', { name: 'Shoal' }).click()
  const silent = () => (globalThis as unknown as Hooked).hear.getTracks().every((t) => t.readyState === 'ended')
  await expect.poll(() => page.evaluate(silent), 'who leaves is heard no more').toBe(true)
  expect(worst, 'frames').toBeLessThan(144) // 3 ms: what a browser's stream wanders by
})

test('the long lead stands in for an own input: what arrives late, in bursts and with losses lies where it was played', async ({
  board,
  shoal,
}) => {
  await board.getByRole('button', { name: 'Tide table', exact: true }).click()
  await record(board, 3)
  await stopped(board)
  await board.keyboard.press('Escape')
  await board.keyboard.press('Home')
  await board.getByRole('button', { name: 'Recorded from Reader' }).click()
  await board.getByRole('menuitem', { name: /^Long lead/ }).click()
  await expect(board.getByTestId('input-says')).toContainText('plays when the song does')
  await record(board, 3)
  await stopped(board)
  const { takes } = await recorded(board, shoal)
  const [bare, led] = takes
  const want = await sound(board, shoal.url, bare!.untouched)
  const got = await sound(board, shoal.url, led!.untouched)
  const a = bare!.runs[0]!
  let same = 0
  let other = 0
  for (const run of led!.runs)
    for (let i = 0; i < run.frames; i++) {
      const at = run.song + i - a.song + a.input
      if (run.song + i < a.song + 256 || at >= a.input + a.frames) continue
      if (got[run.input + i] === want[at]) same++
      else if (got[run.input + i] === 0) other++
      else throw new Error(`frame ${run.song + i} of the song: ${got[run.input + i]}, where ${want[at]} was read`)
    }
  expect(same, 'a second and more of both').toBeGreaterThan(48000)
  expect(other, 'what was lost on the way').toBeLessThan(4 * 128)
})

type Heard = { heard(): { peaks: Map<string, [number, number]>; state: number } | null }

test('one hears oneself through the chain, straight, or straight with what the row sends', async ({ board, shoal }) => {
  const { row: find, rows } = await recorded(board, shoal)
  const others = rows.filter((c) => c.kind === 'track' && c.name !== 'Tide table')
  await board.getByRole('button', { name: 'Tide table', exact: true }).click()
  await board.getByRole('button', { name: /^Recorded from/ }).click()
  await board.getByRole('menuitem', { name: /^Own input/ }).click()
  await expect(board.getByRole('button', { name: 'Ready', exact: true })).toBeVisible()
  await board.request.post(`${shoal.url}/api/projects/slackwater/changes`, {
    data: {
      label: 'Only the voice',
      changes: others.map((c) => ({ type: 'channel.set', do: { id: c.id, mute: true } })),
    },
  })
  const choose = async (what: RegExp, then: string) => {
    await board.getByRole('button', { name: /^How you hear Tide table/ }).click()
    await board.getByRole('menuitem', { name: what }).click()
    await expect(board.getByRole('button', { name: `How you hear Tide table: ${then}` })).toBeVisible()
  }
  /** The highest that is heard of a channel within a while, in dB. */
  const level = (id: string) =>
    board.evaluate((key) => {
      const e = (globalThis as unknown as { shoalEngine: Heard }).shoalEngine
      return Math.max(...(e.heard()?.peaks.get(key) ?? [-120, -120]))
    }, `post ${id}`)
  const voice = find('Tide table').id
  const hall = find('Stone hall').id
  await board.keyboard.press('End')
  await board.keyboard.press('Space')
  await choose(/^Through the chain/, 'heard through the chain')
  await expect.poll(() => level(voice)).toBeGreaterThan(-40)
  await choose(/^Straight, with its/, 'heard straight, with its returns')
  await expect.poll(() => level(hall)).toBeGreaterThan(-60)
  const main = rows.find((c) => c.kind === 'main')!.id
  await expect.poll(() => level(main), 'less than the voice itself').toBeLessThan(-30)
  await choose(/^Straight, without/, 'heard straight')
  await expect.poll(() => level(hall)).toBeLessThan(-60)
})

const projectOf = (page: Page) => /project\/([^/?#]+)/.exec(page.url())![1]

/** The left side of a sound. */
async function sound(page: Page, url: string, hash: string): Promise<Float32Array> {
  const all: number[] = []
  for (let n = 0; ; n++) {
    const r = await page.request.get(`${url}/api/projects/${projectOf(page)}/audio/${hash}/pcm/${n}`)
    if (!r.ok()) return Float32Array.from(all)
    const b = await r.body()
    const x = new Float32Array(b.buffer.slice(b.byteOffset, b.byteOffset + b.length))
    const channels = Number(r.headers()['x-channels'] ?? 1)
    for (let i = 0; i < x.length / channels; i++) all.push(x[i]!)
  }
}

/** The frames at which clicks begin in a sound. */
async function strokes(page: Page, url: string, hash: string): Promise<number[]> {
  const out: number[] = []
  let quiet = 48000
  for (const [i, x] of (await sound(page, url, hash)).entries()) {
    if (Math.abs(x) < 0.02) quiet++
    else {
      if (quiet > 4800) out.push(i)
      quiet = 0
    }
  }
  return out
}
