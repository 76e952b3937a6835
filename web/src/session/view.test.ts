import { beforeEach, expect, test, vi } from 'vitest'

/** The view as a page finds it that is opened with this in the browser's memory. */
async function opened(kept?: string) {
  vi.resetModules()
  localStorage.clear()
  if (kept !== undefined) localStorage.setItem('shoal', kept)
  return import('./view')
}

beforeEach(() => localStorage.clear())

test('what a window is set to is there again in the next', async () => {
  const first = await opened()
  first.setView({ tide: 'low', grid: 480, recent: ['delay'], along: true, channel: 'row' })
  const next = await opened(localStorage.getItem('shoal')!)
  const { tide, grid, recent, along, channel } = next.view()
  expect({ tide, grid, recent, along }).toEqual({ tide: 'low', grid: 480, recent: ['delay'], along: true })
  expect(channel, 'what is selected is not remembered').toBe('')
})

test('what is remembered wrongly counts for nothing, and the rest holds', async () => {
  for (const text of ['{', 'null', '7', '[]', '{"state":null,"version":1}']) {
    expect((await opened(text)).view().tide, text).toBe('mid')
  }
  const v = await opened(
    JSON.stringify({
      version: 1,
      state: { tide: 7, recent: [1], favourites: ['trim'], along: 'yes', bench: false, extra: 1 },
    }),
  )
  const { tide, recent, favourites, along, bench } = v.view()
  expect({ tide, recent, favourites, along, bench }).toEqual({
    tide: 'mid',
    recent: [],
    favourites: ['trim'],
    along: null,
    bench: false,
  })
})

test('another project begins anew, with what is remembered', async () => {
  const v = await opened()
  v.setView({
    tide: 'low',
    channel: 'row',
    solo: ['a'],
    renaming: 'row',
    matching: false,
    trials: { a: 't' },
  })
  v.beginAnew()
  const { tide, channel, solo, renaming, matching, trials } = v.view()
  expect({ tide, channel, solo, renaming, matching, trials }).toEqual({
    tide: 'low',
    channel: '',
    solo: [],
    renaming: '',
    matching: true,
    trials: {},
  })
})
