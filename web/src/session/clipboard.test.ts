import { afterEach, expect, it, vi } from 'vitest'
import { keep, kept } from './clipboard'

const points = {
  format: 'shoal points 1' as const,
  lines: [{ of: { owner: 'a', name: 'fader' }, points: [] }],
}

afterEach(() => vi.unstubAllGlobals())

it('pastes in this window what it copied where the browser has no clipboard', async () => {
  vi.stubGlobal('navigator', {}) // as without https
  await keep(points, 'Kept.')
  expect(await kept()).toEqual(points)
})

it('pastes what another program put on the clipboard since', async () => {
  await keep(points, 'Kept.')
  vi.stubGlobal('navigator', { clipboard: { readText: () => Promise.resolve('-6 dB') } })
  expect(await kept()).toEqual({ format: 'text', text: '-6 dB' })
})
