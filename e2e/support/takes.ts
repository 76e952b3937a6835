import type { Page } from '@playwright/test'
import { expect } from './expect'
import type { Shoal } from './shoal'

export type Take = {
  id: string
  row: string
  name: string
  runs: { input: number; song: number; frames: number }[]
  treated?: string
  untouched: string
  ended?: string
  loud: number
}
type Clip = { take?: string; enters?: string; audio: string; start: number; frames: number }
type Row = { id: string; name: string; kind: string; records?: string; wayIn?: string; clips: Clip[] }

/** The takes and rows of the demo, as the server has them. */
export async function recorded(page: Page, shoal: Shoal) {
  const r = await page.request.get(`${shoal.url}/api/projects/slackwater`)
  const { project } = (await r.json()) as { project: { channels: Row[]; takes?: Take[] } }
  const row = (name: string) => project.channels.find((c) => c.name === name)!
  return { rows: project.channels, row, takes: project.takes ?? [] }
}

export const framesOf = (t: Take) => t.runs.reduce((n, r) => n + r.frames, 0)

/** Begins to record, and waits until something has come. */
export async function record(page: Page, seconds: number) {
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(page.getByRole('img', { name: 'Being recorded' }).first()).toBeVisible()
  await longer(page, seconds)
}

/** Waits until the song has gone on by so many seconds. */
export async function longer(page: Page, seconds: number) {
  const read = async () => {
    const [m, s] = (await page.getByTestId('clock').textContent())!.split(':')
    return Number(m) * 60 + Number(s)
  }
  const from = await read()
  await expect.poll(read).toBeGreaterThan(from + seconds)
}

/** Stops the song, and with it what is recorded; waits until the takes lie there. */
export async function stopped(page: Page) {
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(page.getByRole('dialog', { name: /^Takes at/ })).toBeVisible()
}
