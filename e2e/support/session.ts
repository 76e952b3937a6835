import type { Page } from '@playwright/test'
import { expect, type Shoal } from './shoal'

/** What rows of a session are made of that is put in the place of the demo's, through the interface that windows use. */
export async function parts(page: Page, shoal: Shoal, level: number) {
  const opened = await (await page.request.get(`${shoal.url}/api/projects/slackwater`)).json()
  const p = opened.project as { channels: { id: string; kind: string; clips: object[] }[] }
  const main = p.channels.find((c) => c.kind === 'main')!
  let n = 0
  const id = () => `bench${++n}`
  const stage = (effect: string, params: object = {}, mix = 100, mixLaw = 'blend') => ({
    stage: { id: id(), name: '', effect, version: 1, params, bypass: false, mix, mixLaw, actsOn: 'both' },
  })
  const send = (to: string, level: number) => ({ id: id(), to, pre: false, level, pan: 0, mute: false })
  const channel = (kind: string, name: string, nodes: object[]) => ({
    id: id(),
    kind,
    name,
    tint: 0,
    stereo: true,
    hidden: false,
    chain: { bypass: false, nodes },
    waterline: '',
    fader: level,
    pan: 0,
    mute: false,
    mutePre: false,
    soloSafe: kind === 'return',
    output: main.id,
    sends: [] as object[],
    clips: [] as object[],
  })
  const post = async (label: string, changes: object[]) => {
    const r = await page.request.post(`${shoal.url}/api/projects/slackwater/changes`, { data: { label, changes } })
    expect(r.status(), await r.text()).toBe(200)
  }
  /** Puts rows in the place of the demo's tracks. */
  const replace = (rows: object[]) =>
    post('Rows', [
      ...p.channels.filter((c) => c.kind === 'track').map((c) => ({ type: 'channel.remove', do: { id: c.id } })),
      ...rows.map((channel) => ({ type: 'channel.add', do: { channel, index: 0 } })),
    ])
  return { clip: p.channels[0]!.clips[0]!, id, stage, send, channel, post, replace }
}
