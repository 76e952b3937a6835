import type { Page } from '@playwright/test'
import { parts } from '../support/session'
import { enter, type Shoal, test } from '../support/shoal'

/* What a session of months is like to work in. Figures for people to read; nothing here judges a time. */

const ROWS = 200

/** 200 rows with five sends and five clips each, 200 lines of 500 points: an open project, through the interface that windows use. */
async function large(page: Page, shoal: Shoal) {
  const { clip, id, stage, send, channel, post, replace } = await parts(page, shoal, -30)
  const returns = Array.from({ length: 10 }, (_, i) => channel('return', `Return ${i}`, [stage('delay')]))
  const tracks = Array.from({ length: ROWS - 10 }, (_, i) => {
    const c = channel(
      'track',
      `Large ${i}`,
      ['equaliser', 'compressor', 'trim'].map((e) => stage(e)),
    )
    c.sends = Array.from({ length: i < 50 ? 6 : 5 }, (_, k) => send(returns[(i + k) % 10]!.id, -30))
    c.clips = Array.from({ length: 5 }, (_, k) => ({
      ...clip,
      id: id(),
      start: k * 960 * 40,
      frames: 400_000,
      follows: false,
      exact: false,
    }))
    return c
  })
  await replace([...returns, ...tracks])
  const line = (owner: string, name: string, low: number, high: number) => ({
    type: 'line.set',
    do: {
      owner,
      name,
      points: Array.from({ length: 500 }, (_, i) => ({ tick: i * 400, value: low + ((high - low) * ((i * 7) % 10)) / 9, shape: 'ramp' })),
    },
  })
  for (let k = 0; k < 4; k++)
    await post(
      'Lines',
      tracks.slice(k * 25, k * 25 + 25).flatMap((c) => [line(c.id, 'fader', -40, -30), line(c.id, 'pan', -0.5, 0.5)]),
    )
  for (let k = 0; k < 2000; k++)
    await post(
      'Pan',
      Array.from({ length: 10 }, (_, i) => ({
        type: 'param.set',
        do: { owner: tracks[(k * 10 + i) % tracks.length]!.id, name: 'pan', value: ((k + i) % 20) / 20 },
      })),
    )
}

test('200 rows, 1,000 sends, 950 clips, 200 lines of 100,000 points, 20,000 changes: opened, edited, scrolled', async ({ page, shoal }) => {
  test.setTimeout(600_000)
  await enter(page, shoal, 'Ada')
  await large(page, shoal)
  const begun = Date.now()
  await page.goto(`${shoal.url}/project/slackwater`)
  await page.getByRole('button', { name: 'Mute Large 189' }).waitFor()
  console.log(`bench: a large session: rows are seen ${Date.now() - begun} ms after the page is opened`)
  await page.waitForFunction(() => (globalThis as unknown as { shoalEngine?: object }).shoalEngine !== undefined)
  await page.waitForFunction(() => !document.querySelector('[aria-busy=true]'))
  console.log(`bench: a large session: the engine is there ${Date.now() - begun} ms after the page is opened`)
  const took = await page.evaluate(async () => {
    const list: number[] = []
    for (let i = 0; i < 15; i++) {
      const b = document.querySelector<HTMLElement>('[aria-label="Mute Large 189"]')!
      const was = b.getAttribute('aria-pressed')
      const from = performance.now()
      b.click()
      while (b.getAttribute('aria-pressed') === was) await new Promise((r) => setTimeout(r, 1))
      list.push(performance.now() - from)
      await new Promise((r) => setTimeout(r, 400))
    }
    return list.sort((a, b) => a - b)
  })
  console.log(
    `bench: a large session: an edit is seen after ${took[7]!.toFixed(0)} ms in the middle of 15, ${took[14]!.toFixed(0)} ms at most`,
  )
  await page.mouse.move(700, 300)
  const pictures = page.evaluate(async () => {
    const at: number[] = []
    const end = performance.now() + 5000
    while (performance.now() < end) at.push(await new Promise<number>((r) => requestAnimationFrame(r)))
    const gaps = at
      .slice(1)
      .map((t, i) => t - at[i]!)
      .sort((a, b) => a - b)
    return { each: at.length / 5, late: gaps[Math.floor(gaps.length * 0.95)]! }
  })
  for (let i = 0; i < 100; i++) {
    await page.mouse.wheel(0, i < 50 ? 120 : -120)
    await page.waitForTimeout(40)
  }
  const { each, late } = await pictures
  console.log(`bench: a large session: ${each.toFixed(0)} pictures a second while it is scrolled, 95 of 100 within ${late.toFixed(0)} ms`)
})
