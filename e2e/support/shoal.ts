import type { Page } from '@playwright/test'
import { expect } from './expect'
import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { cpSync, existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { test as base } from './profile'

export const program = join(import.meta.dirname, '../../bin/shoal')

/** An address of this machine by which it always reaches itself, whatever others find it by. */
const here = (url: string) => (url.startsWith('https:') ? url.replace(/^https:\/\/[^/]+:(\d+)/, 'https://127.0.0.1:$1') : url)

/** A server of its own for each test, with a folder of its own. */
export class Shoal {
  url = ''
  private child: ChildProcess | null = null

  constructor(
    readonly data: string,
    readonly demo: boolean,
    /** More that it is started with. */
    readonly more: string[] = [],
    /** What it listens to: beyond this machine there are accounts. */
    private readonly listens = '127.0.0.1:0',
  ) {}

  /** The link that makes the first account. */
  first = ''

  async start() {
    // started again, it is where it was: a window finds it
    const addr = this.url ? new URL(this.url).host : this.listens
    const child = spawn(program, [...[this.demo ? 'demo' : 'serve', '--addr', addr, '--data', this.data], ...this.more])
    this.child = child
    this.url = await new Promise<string>((resolve, reject) => {
      let said = ''
      child.stdout.on('data', (b: Buffer) => {
        said += b.toString()
        const link = /(https:\S+welcome#\S+)/.exec(said)?.[1]
        if (link) this.first = here(link)
        const m = /ready: (https?:\/\/[^/\s]+)/.exec(said)
        if (m) resolve(here(m[1]!))
      })
      child.stderr.on('data', (b: Buffer) => (said += b.toString()))
      child.on('exit', (code) => reject(new Error(`shoal ended with ${code}: ${said}`)))
    })
  }

  get pid() {
    return this.child?.pid
  }

  async stop(signal: NodeJS.Signals = 'SIGTERM') {
    const c = this.child
    if (!c || c.exitCode !== null) return
    const gone = new Promise((r) => c.on('exit', r))
    c.kill(signal)
    await gone
    this.child = null
  }
}

// the demo is made once and copied for every test
const shared = join(tmpdir(), `shoal-e2e-${process.pid}`)

export function demoData(): string {
  if (!existsSync(shared)) execFileSync(program, ['demo', '--make-only', '--data', shared], { stdio: 'ignore' })
  const dir = mkdtempSync(join(tmpdir(), 'shoal-test-'))
  cpSync(shared, dir, { recursive: true })
  return dir
}

process.on('exit', () => rmSync(shared, { recursive: true, force: true }))

export const test = base.extend<{ shoal: Shoal; board: Page; started: string }>({
  /** What the server is started with besides. */
  started: ['', { option: true }],
  shoal: async ({ started, port }, use) => {
    const s = new Shoal(demoData(), true, started ? started.split(' ') : [], `127.0.0.1:${port}`)
    await s.start()
    await use(s)
    await s.stop()
    rmSync(s.data, { recursive: true, force: true })
  },
  /** A window on the demo, by somebody called Ada. */
  board: async ({ page, shoal }, use) => {
    const troubles: string[] = []
    page.on('pageerror', (e) => troubles.push(e.message))
    await enter(page, shoal, 'Ada')
    await use(page)
    expect(troubles, 'errors in the page').toEqual([])
  },
})

/** For windows that hear by a microphone: a browser that keeps nothing. */
export const hearing = test.extend({
  context: async ({ browser }, use) => {
    const context = await browser.newContext()
    await use(context)
    await context.close()
  },
})

/** Opens the demo under a name. */
export async function enter(page: Page, shoal: Shoal, name: string, path = '/project/slackwater') {
  await knowing(page)
  await page.goto(shoal.url + path)
  await called(page, name)
}

/** Lets a window be of somebody who has had the first minute behind them. */
export const knowing = (page: Page) =>
  page.addInitScript(() => {
    localStorage.shoal ??= JSON.stringify({ state: { learnt: 4 }, version: 2 })
  })

/** Says who somebody is, where nobody has asked. */
export async function called(page: Page, name: string) {
  await page.getByRole('button', { name: 'Your name?' }).click()
  await named(page, name)
}

/** Answers who one is, where that is asked. */
export async function named(page: Page, name: string) {
  await page.getByRole('textbox', { name: 'Your name' }).fill(name)
  await page.keyboard.press('Enter')
  await expect(page.getByLabel(`${name} (you) is here`)).toBeVisible()
}

export const row = (page: Page, name: string) => page.getByRole('group', { name, exact: true })
export const stagesOf = (page: Page, name: string) => row(page, name).locator('[data-stage]')

/** Waits until so many pictures have been drawn: long enough for something to be seen to move. */
export const pictures = (page: Page, n: number) =>
  page.evaluate(async (n) => {
    for (let i = 0; i < n; i++) await new Promise((drawn) => requestAnimationFrame(drawn))
  }, n)

/** Waits until colours have faded and nothing moves to its place any more. */
export const still = (page: Page) =>
  page.evaluate(async () => {
    for (let i = 0; i < 2; i++) await new Promise((drawn) => requestAnimationFrame(drawn))
    const ending = document.getAnimations().filter((a) => a.effect?.getComputedTiming().iterations !== Infinity)
    await Promise.allSettled(ending.map((a) => a.finished))
  })

/** Seconds of the song, as the clock shows them. */
export async function clock(page: Page): Promise<number> {
  const [m, s] = (await page.getByTestId('clock').textContent())!.split(':')
  return Number(m) * 60 + Number(s)
}

/** Waits until the song has gone on for so many seconds, and what has been opened stands still. */
export async function goneOn(page: Page, seconds: number) {
  const from = await clock(page)
  await expect
    .poll(
      async () => {
        const now = await clock(page)
        return now > from + seconds || now < from // a loop has begun anew
      },
      { timeout: 60_000 },
    )
    .toBe(true)
  await still(page)
}

export async function project(page: Page, shoal: Shoal) {
  return (await (await page.request.get(`${shoal.url}/api/projects/slackwater`)).json()) as {
    revision: number
    project: {
      channels: {
        id: string
        name: string
        mute: boolean
        kind: string
        fader: number
        chain: { nodes: { stage: { id: string; effect: string; params: Record<string, number>; bypass: boolean } }[] }
        clips: { audio: string; start: number }[]
      }[]
    }
  }
}

export { expect }
