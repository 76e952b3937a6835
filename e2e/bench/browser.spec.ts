import type { Page } from '@playwright/test'
import { expect, test, enter, type Shoal } from '../support/shoal'
import { parts } from '../support/session'

/* Figures for people to read; nothing here judges a time. */

type Window = { shoalEngine: { underruns: number; held: number; heard(): { load: number; song: number } | null } }

test('opening, size and memory', async ({ page, shoal }) => {
  let bytes = 0
  const session = await page.context().newCDPSession(page)
  await session.send('Network.enable')
  session.on('Network.loadingFinished', (e) => (bytes += e.encodedDataLength))
  await enter(page, shoal, 'Ada')
  const begun = Date.now()
  await page.goto(`${shoal.url}/project/slackwater`)
  await page.getByTestId('clock').waitFor()
  await page.waitForFunction(() => (globalThis as unknown as Window).shoalEngine !== undefined)
  await page.keyboard.press('Space')
  await page.waitForFunction(() => ((globalThis as unknown as Window).shoalEngine.heard()?.song ?? 0) > 0)
  console.log(`bench: from opening the page to sound: ${Date.now() - begun} ms`)
  console.log(`bench: downloaded in all, with the audio of the first seconds: ${(bytes / 1e6).toFixed(2)} MB`)
  await page.waitForTimeout(15000)
  const used = await page.evaluate(async () => {
    const m = (performance as unknown as { measureUserAgentSpecificMemory?: () => Promise<{ bytes: number }> })
      .measureUserAgentSpecificMemory
    return m ? (await m.call(performance)).bytes : 0
  })
  const held = await page.evaluate(() => (globalThis as unknown as Window).shoalEngine.held)
  console.log(`bench: memory after 15 s: the page ${(used / 1e6).toFixed(0)} MB, the engine in its worker ${(held / 1e6).toFixed(0)} MB`)
  const load = await page.evaluate(() => (globalThis as unknown as Window).shoalEngine.heard()!.load)
  console.log(`bench: the demo in wasm: ${(1 / load).toFixed(1)} x realtime`)
})

test('from a click in one window until the other shows it', async ({ board, shoal, browser }) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const other = await context.newPage()
  await enter(other, shoal, 'Odile')
  await other.evaluate(() => {
    const w = globalThis as unknown as { changed: Promise<number>; watch(): void }
    w.watch = () => {
      w.changed = new Promise((done) => {
        const el = document.querySelector('[aria-label="Mute Marimba"]')!
        const o = new MutationObserver(() => {
          o.disconnect()
          done(Date.now())
        })
        o.observe(el, { attributes: true, attributeFilter: ['aria-pressed'] })
      })
    }
  })
  const took: number[] = []
  for (let i = 0; i < 11; i++) {
    await other.evaluate(() => (globalThis as unknown as { watch(): void }).watch())
    const begun = await board.evaluate(() => {
      document.querySelector<HTMLElement>('[aria-label="Mute Marimba"]')!.click()
      return Date.now()
    })
    took.push((await other.evaluate(() => (globalThis as unknown as { changed: Promise<number> }).changed)) - begun)
    await board.waitForTimeout(300)
  }
  took.sort((a, b) => a - b)
  console.log(`bench: a change is seen in another window after ${took[5]} ms in the middle of 11, ${took[10]} ms at most`)
  await context.close()
})

/** Puts so many tracks of six stages, and four returns, in the place of the demo's tracks; the last of them have no sound yet. */
async function bigSession(page: Page, shoal: Shoal, count: number, resting = 0) {
  const { clip, id, stage, send, channel, replace } = await parts(page, shoal, -20)
  const returns = [0, 1, 2, 3].map((i) => channel('return', `Return ${i}`, [stage('reverb'), stage('equaliser', { gain3: -3, gain5: 2 })]))
  const tracks = Array.from({ length: count }, (_, i) => {
    const c = channel('track', `Bench ${i}`, [
      stage('trim', { gain: -3 }),
      stage('equaliser', { on1: 1, gain3: -3, gain5: 2 }),
      stage('compressor'),
      stage('equaliser', { gain4: 2 }),
      stage('delay', {}, 25, 'add'),
      stage('limiter'),
    ])
    c.sends = [send(returns[i % 4]!.id, -10)]
    if (i < count - resting) c.clips = [{ ...clip, id: id(), start: 0, follows: true }]
    return c
  })
  await replace([...returns, ...tracks])
  return { tracks, returns, clip }
}

for (const [count, resting] of [
  [24, 0],
  [36, 0],
  [48, 24],
  [48, 0],
] as const)
  test(`${count} tracks of 6 stages and 4 returns for 60 s, ${resting} of them at rest`, async ({ page, shoal }) => {
    test.setTimeout(180_000)
    await enter(page, shoal, 'Ada')
    await bigSession(page, shoal, count, resting)
    await page.waitForTimeout(3000)
    await page.keyboard.press('Space')
    const session = await page.context().newCDPSession(page)
    await session.send('Performance.enable')
    const metrics = async () => Object.fromEntries((await session.send('Performance.getMetrics')).metrics.map((m) => [m.name, m.value]))
    const before = await metrics()
    const seen: number[] = []
    const when: string[] = []
    let gapsSoFar = await page.evaluate(() => (globalThis as unknown as Window).shoalEngine.underruns)
    if (gapsSoFar) when.push(`${gapsSoFar} at the start`)
    for (let i = 0; i < 60; i++) {
      await page.waitForTimeout(1000)
      const now = await page.evaluate(() => {
        const e = (globalThis as unknown as Window).shoalEngine
        return { load: e.heard()!.load, gaps: e.underruns }
      })
      seen.push(now.load)
      if (now.gaps > gapsSoFar) when.push(`${now.gaps - gapsSoFar} in second ${i + 1}`)
      gapsSoFar = now.gaps
    }
    const after = await metrics()
    const share = (name: string) => (((after[name]! - before[name]!) / 60) * 100).toFixed(0)
    console.log(
      `bench: the page's own thread: ${share('TaskDuration')} % busy, of which script ${share('ScriptDuration')}, style ${share('RecalcStyleDuration')}, layout ${share('LayoutDuration')}`,
    )
    const { gaps, held } = await page.evaluate(() => {
      const e = (globalThis as unknown as Window).shoalEngine
      return { gaps: e.underruns, held: e.held }
    })
    console.log(
      `bench: session of ${count} tracks in wasm, ${resting} of them at rest: load ${([...seen].sort((a, b) => a - b)[30]! * 100).toFixed(0)} % in the middle, ${(Math.max(...seen) * 100).toFixed(0)} % at most, ${gaps} underruns in 60 s${when.length ? ` (${when.join(', ')})` : ''}, the engine holds ${(held / 1e6).toFixed(0)} MB`,
    )
  })

for (const what of ['stage', 'row'] as const)
  test(`a ${what} comes each second while 24 tracks of 6 stages and 4 returns play`, async ({ page, shoal }) => {
    test.setTimeout(180_000)
    await enter(page, shoal, 'Ada')
    const { tracks } = await bigSession(page, shoal, 24)
    await page.waitForTimeout(3000)
    await page.keyboard.press('Space')
    await page.waitForTimeout(5000)
    const gaps = () => page.evaluate(() => (globalThis as unknown as Window).shoalEngine.underruns)
    const held = () => page.evaluate(() => (globalThis as unknown as Window).shoalEngine.held)
    const [before, first] = [await gaps(), await held()]
    let heard = 0 // of how many edits
    for (let i = 0; i < 20; i++) {
      const row = tracks[(i * 5) % 24]!
      const so = await gaps()
      const change =
        what === 'row'
          ? {
              type: 'channel.add',
              do: { channel: { ...row, id: `row${i}`, chain: { bypass: false, nodes: [] }, sends: [], clips: [] }, index: 0 },
            }
          : { type: 'node.add', do: { owner: row.id, index: 1, node: { stage: { ...another, id: `stage${i}` } } } }
      const r = await page.request.post(`${shoal.url}/api/projects/slackwater/changes`, { data: { label: what, changes: [change] } })
      expect(r.status(), await r.text()).toBe(200)
      await page.waitForTimeout(1000)
      if ((await gaps()) > so) heard++
    }
    console.log(
      `bench: a ${what} comes each second while 24 tracks play: ${(await gaps()) - before} underruns, at ${heard} of 20, the engine holds ${(((await held()) - first) / 1e6).toFixed(0)} MB more than before`,
    )
  })

/** One more effect, for rows that play. */
const another = { name: '', effect: 'equaliser', version: 1, params: {}, bypass: false, mix: 100, mixLaw: 'blend', actsOn: 'both' }

for (const [how, share] of [
  ['all moving at once', 1],
  ['each moving a quarter of the time', 4],
] as const)
  test(`100,000 points on 200 lines, ${how}: played, scrolled and edited`, async ({ page, shoal }) => {
    test.setTimeout(180_000)
    await enter(page, shoal, 'Ada')
    const { tracks } = await bigSession(page, shoal, 10)
    const moved: [number, string, number, number][] = [
      [-1, 'fader', -32, -20],
      [-1, 'pan', -0.5, 0.5],
      [-2, 'level', -30, -6],
      [-2, 'pan', -1, 1],
      [1, 'freq3', 200, 900],
      [1, 'gain3', -9, 9],
      [1, 'q3', 0.5, 4],
      [1, 'freq4', 700, 2000],
      [1, 'gain4', -6, 6],
      [1, 'gain5', -3, 6],
      [2, 'threshold', -40, -20],
      [2, 'ratio', 1.5, 8],
      [2, 'makeup', 0, 6],
      [2, 'mix', 40, 100],
      [4, 'feedback', 10, 60],
      [4, 'width', 20, 100],
      [4, 'mix', 5, 40],
      [4, 'highcut', 2000, 9000],
      [0, 'gain', -12, 0],
      [5, 'input', 0, 6],
    ]
    const owner = (t: (typeof tracks)[number], i: number) =>
      i === -1 ? t.id : i === -2 ? (t.sends[0] as { id: string }).id : (t.chain.nodes[i] as { stage: { id: string } }).stage.id
    for (const t of tracks) {
      const changes = moved.map(([at, name, low, high], nth) => ({
        type: 'line.set',
        do: {
          owner: owner(t, at),
          name,
          // bursts of twenty points; between them it holds
          points: Array.from({ length: 500 }, (_, i) => ({
            tick: Math.floor(i / 20) * 8000 + (i % 20) * (400 / share) + (share > 1 ? (nth % 4) * 2000 : 0),
            value: low + ((high - low) * ((i * 7) % 10)) / 9,
            shape: share > 1 && i % 20 === 19 ? 'step' : 'ramp',
          })),
        },
      }))
      const r = await page.request.post(`${shoal.url}/api/projects/slackwater/changes`, { data: { label: 'Lines', changes } })
      expect(r.status(), await r.text()).toBe(200)
    }
    await page.waitForTimeout(4000)
    await page.locator('[data-row]').first().getByRole('button').first().click()
    await page.keyboard.press('x') // twenty lines are open under the first row
    await page.waitForTimeout(1500)
    await page.keyboard.press('Space')
    await page.waitForTimeout(2000)
    const state = () =>
      page.evaluate(() => {
        const e = (globalThis as unknown as Window).shoalEngine
        return { load: e.heard()!.load, gaps: e.underruns }
      })
    const begun = await state()
    const loads: number[] = []
    for (let i = 0; i < 20; i++) {
      await page.waitForTimeout(1000)
      loads.push((await state()).load)
    }
    const played = await state()
    // scrolled while it plays: the pace of the pictures
    const pictures = await page.evaluate(async () => {
      const box = document.querySelector('[data-row]')!.parentElement!
      const took: number[] = []
      let last = performance.now()
      for (let i = 0; i < 90; i++) {
        box.scrollTop = 300 + 300 * Math.sin(i / 8)
        await new Promise((r) => requestAnimationFrame(r))
        took.push(performance.now() - last)
        last = performance.now()
      }
      return took.sort((a, b) => a - b)
    })
    // edited while it plays: until the point is where the hand put it
    const edits: number[] = []
    for (let i = 0; i < 6; i++) {
      const at = Date.now()
      const r = await page.request.post(`${shoal.url}/api/projects/slackwater/changes`, {
        data: {
          label: 'Move',
          changes: [{ type: 'line.points', do: { owner: tracks[0]!.id, name: 'fader', ticks: [8000], value: -25 - i } }],
        },
      })
      expect(r.status(), await r.text()).toBe(200)
      edits.push(Date.now() - at)
    }
    edits.sort((a, b) => a - b)
    loads.sort((a, b) => a - b)
    const after = await state()
    console.log(
      `bench: 100,000 points on 200 lines, ${how}: load ${(loads[10]! * 100).toFixed(0)} % in the middle, ${(loads[19]! * 100).toFixed(0)} % at most, ${played.gaps - begun.gaps} underruns in 20 s;` +
        ` scrolling a picture takes ${pictures[45]!.toFixed(0)} ms in the middle, ${pictures[85]!.toFixed(0)} ms for 19 of 20; an edit ${edits[3]} ms, ${after.gaps - played.gaps} underruns meanwhile`,
    )
  })
