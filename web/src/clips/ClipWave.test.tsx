import { act, render } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Lens } from '../document/time'
import { clip, draw, open } from '../testing/screen'
import { ClipView } from './ClipView'

const { overview, asked } = vi.hoisted(() => ({ overview: new Uint8Array(8), asked: new Set<string>() }))
const drawn = vi.fn<(...of: unknown[]) => object[]>(() => [{ colour: 'red', path: 'M0 0' }])
vi.mock('./wave', async (real) => ({
  ...(await real<typeof import('./wave')>()),
  contours: (...x: unknown[]) => drawn(...x),
  useOverview: (hash: string) => {
    asked.add(hash)
    return { data: hash ? overview : undefined, isError: false }
  },
}))

vi.mock('./treatedWave', () => ({ useTreatedWave: () => null }))

const watched = new Set<Element>()
let tell: (list: { target: Element; isIntersecting: boolean }[]) => void

beforeEach(() => {
  drawn.mockClear()
  asked.clear()
  watched.clear()
  vi.stubGlobal(
    'IntersectionObserver',
    class {
      constructor(f: typeof tell) {
        tell = f
      }
      observe = (el: Element) => watched.add(el)
      unobserve = (el: Element) => watched.delete(el)
    },
  )
})
afterEach(() => vi.unstubAllGlobals())

const lens = (from: number) =>
  ({
    from,
    perPixel: 100,
    x: (f: number) => (f - from) / 100,
    frame: (x: number) => from + x * 100,
  }) as unknown as Lens

// A clip that was beside the window, and comes into it when the song is scrolled, has another element than it had.
test('a clip is drawn once it is in sight, also when it comes from beside the window', () => {
  const x = clip('a')
  const p = open((p) => (p.channels[0]!.clips = [x]))
  const at = (from: number) => (
    <ClipView clip={x} row={p.channels[0]!.id} start={0} lens={lens(from)} width={1000} height={50} />
  )
  const see = (isIntersecting = true) =>
    act(() => tell([...watched].map((target) => ({ target, isIntersecting }))))
  draw(null)
  const view = render(at(900000))
  expect(watched.size).toBe(0)
  view.rerender(at(0))
  expect(watched.size).toBe(1)
  expect(drawn).not.toHaveBeenCalled()
  expect(asked, 'nor is its sound asked for').toEqual(new Set())
  see()
  expect(asked).toEqual(new Set([x.audio]))
  expect(drawn).toHaveBeenCalledTimes(1)
  see(false)
  expect(view.container.querySelectorAll('path[fill=red]')).toHaveLength(1)
  see()
  expect(drawn).toHaveBeenCalledTimes(1) // it is as it was
  view.rerender(at(900000))
  expect(watched.size).toBe(0)
  view.rerender(at(100))
  see()
  expect(drawn).toHaveBeenCalledTimes(2)
})
