import { test, enter } from '../support/shoal'
import { readFileSync, writeFileSync } from 'node:fs'
import { execSync } from 'node:child_process'
test('tmp main thread', async ({ page, shoal }) => {
  test.setTimeout(180_000)
  await enter(page, shoal, 'Ada')
/*PRE*/
  const opened = await (await page.request.get(`${shoal.url}/api/projects/slackwater`)).json()
  const p = opened.project
  const main = p.channels.find((c: { kind: string }) => c.kind === 'main')
  const clip = p.channels[0].clips[0]
  let n = 0
  const id = () => `bench${++n}`
  const stage = (effect: string, params: object, mix = 100, mixLaw = 'blend') => ({
    stage: { id: id(), name: '', effect, version: 1, params, bypass: false, mix, mixLaw, actsOn: 'both' },
  })
  const channel = (kind: string, name: string, nodes: object[]) => ({
    id: id(), kind, name, tint: 0, stereo: true, hidden: false, chain: { bypass: false, nodes }, waterline: '', fader: -20, pan: 0,
    mute: false, mutePre: false, soloSafe: kind === 'return', output: main.id, sends: [] as object[], clips: [] as object[],
  })
  const returns = [0, 1, 2, 3].map((i) => channel('return', `Return ${i}`, [stage('reverb', {}), stage('equaliser', { gain3: -3, gain5: 2 })]))
  const tracks = Array.from({ length: 24 }, (_, i) => {
    const c = channel('track', `Bench ${i}`, [
      stage('trim', { gain: -3 }), stage('equaliser', { on1: 1, gain3: -3, gain5: 2 }), stage('compressor', {}),
      stage('equaliser', { gain4: 2 }), stage('delay', {}, 25, 'add'), stage('limiter', {}),
    ])
    c.sends = [{ id: id(), to: returns[i % 4]!.id, pre: false, level: -10, pan: 0, mute: false }]
    c.clips = [{ ...clip, id: id(), start: 0, follows: true }]
    return c
  })
  const changes = [
    ...p.channels.filter((c: { kind: string }) => c.kind === 'track').map((c: { id: string }) => ({ type: 'channel.remove', do: { id: c.id } })),
    ...[...returns, ...tracks].map((c) => ({ type: 'channel.add', do: { channel: c, index: 0 } })),
  ]
  const r = await page.request.post(`${shoal.url}/api/projects/slackwater/changes`, { data: { label: 'Bench', changes } })
  if (r.status() !== 200) throw new Error(await r.text())

  if (process.env.GOTO) await page.goto(`${shoal.url}/project/slackwater`)
  await page.getByTestId('clock').waitFor()
  await page.waitForTimeout(4000)
  const pids = execSync("pgrep -f 'type=renderer'").toString().trim().split('\n')
  const cpu = () => pids.map((p) => { try { const f = readFileSync(`/proc/${p}/task/${p}/stat`, 'utf8').split(') ')[1].split(' '); return +f[11] + +f[12] } catch { return 0 } })
  const measure = async (what: string, ms = 5000) => { const a = cpu(); await page.waitForTimeout(ms); const b = cpu(); console.log(what, b.map((x, i) => ((x - a[i]) / (ms / 1000)).toFixed(0) + '%').join(' ')) }
  await measure('idle')
  await page.keyboard.press('Space')
  await measure('playing')
  const session = await page.context().newCDPSession(page)
  for (let k = 0; k < 10; k++) { await measure('playing '+k); console.log('playing load', await page.evaluate(() => { const e=(globalThis as any).shoalEngine; return [e.heard().load, e.underruns] })) }
  const ev: unknown[] = []
  session.on('Tracing.dataCollected', (e: any) => ev.push(...e.value))
  const done = new Promise((r) => session.on('Tracing.tracingComplete', r))
  await session.send('Tracing.start', { transferMode: 'ReportEvents', traceConfig: { includedCategories: ['toplevel', 'devtools.timeline', 'cc', 'blink', 'ipc', 'benchmark', 'base', 'viz', 'scheduler','renderer.scheduler','disabled-by-default-cpu_profiler'] } } as any)
  await page.waitForTimeout(3000)
  await session.send('Tracing.end'); await done
  writeFileSync('/tmp/trace.json', JSON.stringify(ev))
})
