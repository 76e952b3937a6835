import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { readFileSync, writeFileSync } from 'node:fs'
import { expect, pictures, program, test } from '../support/shoal'

type Heard = { shoalEngine: { memory: { head: SharedArrayBuffer; ring: SharedArrayBuffer } } }

test('what the browser puts in the ring is, bit for bit, what is printed natively', async ({ board, shoal }, info) => {
  const bundle = info.outputPath('song.zip')
  writeFileSync(bundle, await (await board.request.get(`${shoal.url}/api/projects/slackwater/bundle`)).body())
  const seconds = 4
  execFileSync(program, [
    'print',
    bundle,
    '--channel',
    'main',
    '--to',
    String(seconds),
    '--format',
    'wav32f',
    '--out',
    info.outputPath('out'),
  ])
  const wav = readFileSync(info.outputPath('out', 'Main.wav'))
  const data = wav.indexOf('data') + 8
  const frames = seconds * 48000
  const native = createHash('sha256')
    .update(wav.subarray(data, data + frames * 8))
    .digest('hex')

  await board.keyboard.press('Space')
  const inBrowser = await board.evaluate(async (frames) => {
    const { head, ring } = (globalThis as unknown as Heard).shoalEngine.memory
    const h = new Int32Array(head)
    const r = new Float32Array(ring)
    const room = r.length / 2
    const out = new Float32Array(frames * 2)
    let at = 0
    while (at < frames) {
      const write = Atomics.load(h, 0)
      if (write - at > room) throw new Error('the ring was read too late')
      for (; at < Math.min(write, frames); at++) {
        out[2 * at] = r[2 * (at % room)]!
        out[2 * at + 1] = r[2 * (at % room) + 1]!
      }
      await new Promise((go) => setTimeout(go, 20))
    }
    const sum = await crypto.subtle.digest('SHA-256', out)
    return {
      hash: [...new Uint8Array(sum)].map((b) => b.toString(16).padStart(2, '0')).join(''),
      loud: out.some((v) => Math.abs(v) > 0.05),
    }
  }, frames)
  expect(inBrowser.loud).toBe(true)
  expect(inBrowser.hash).toBe(native)
})

test('a page of audio that comes late makes playback wait, visibly', async ({ board }) => {
  let release: () => void = () => undefined
  const held = new Promise<void>((go) => (release = go))
  await board.route('**/pcm/**', async (route) => {
    await held
    await route.continue()
  })
  await board.getByRole('button', { name: 'High Water', exact: true }).click()
  await board.keyboard.press('Home')
  await board.evaluate(() => (globalThis as unknown as { shoalEngine: { locate(f: number): void } }).shoalEngine.locate(48000 * 100))
  await board.keyboard.press('Space')
  await expect(board.getByTestId('clock')).toHaveText('1:40.00')
  const stood = '1:40.00'
  await pictures(board, 20)
  expect(await board.getByTestId('clock').textContent()).toBe(stood)
  release()
  await expect.poll(async () => (await board.getByTestId('clock').textContent()) !== stood).toBe(true)
})
