import { act, render } from '@testing-library/react'
import { useRef } from 'react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Timeline } from '../api/types'
import { setView } from '../session/view'
import { Sheet, SPARE, stepBefore, useSheet } from './Sheet'

const song = { end: 4_800_000, shown: 4_800_000 } as Timeline
let drawn = 0

function Strip({ frame }: { frame: number }) {
  const box = useRef<HTMLDivElement>(null)
  const lens = useSheet(song, 1000, 0, box)
  return (
    <div ref={box}>
      <Sheet lens={lens} width={1000} data-testid="sheet">
        <At x={lens.x(frame)} />
      </Sheet>
    </div>
  )
}

function At({ x }: { x: number }) {
  drawn++
  return x
}

beforeEach(() => {
  drawn = 0
  setView({ zoom: 100, scroll: 0 })
})
afterEach(() => vi.unstubAllGlobals())

const scroll = (px: number) => void act(() => setView({ scroll: px * 100 }))

test('what lies along the song is shoved, and drawn anew only once it has gone a step', () => {
  const { getByTestId } = render(<Strip frame={300_000} />)
  const sheet = getByTestId('sheet')
  const seenAt = () => Number(sheet.textContent) + Number(/-?\d+/.exec(sheet.style.transform)![0])
  expect(seenAt()).toBe(3000)
  const first = drawn
  for (let px = 10; px < SPARE; px += 10) {
    scroll(px)
    expect(seenAt()).toBe(3000 - px)
  }
  expect(drawn).toBe(first)
  scroll(SPARE + 7)
  expect(seenAt()).toBe(3000 - SPARE - 7)
  expect(drawn).toBe(first + 1)
  // another sheet could lie anywhere: the frames under it are still the same
  void act(() => setView({ zoom: 50, scroll: 10_000 }))
  expect(seenAt()).toBe((300_000 - 10_000) / 50)
})

test('what is out of sight stays as it is until it comes into sight', () => {
  let tell: (list: { target: Element; isIntersecting: boolean }[]) => void = () => undefined
  const watched = new Set<Element>()
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
  const { getByTestId } = render(<Strip frame={300_000} />)
  expect(getByTestId('sheet').textContent).toBe('3000')
  scroll(2 * SPARE)
  expect(getByTestId('sheet').textContent).toBe('3000')
  void act(() => tell([...watched].map((target) => ({ target, isIntersecting: true }))))
  expect(getByTestId('sheet').textContent).toBe(String(3000 - 2 * SPARE))
})

test('rows take their steps one after the other, and none begins before the song or leaves a gap', () => {
  for (let x = 0; x < 3000; x += 7)
    for (let row = 0; row < 12; row++) {
      const from = stepBefore(x, row)
      expect(from).toBeGreaterThanOrEqual(0)
      expect(from).toBeLessThanOrEqual(x)
      expect(x - from).toBeLessThan(SPARE)
    }
  const at = (row: number) => stepBefore(2000, row)
  expect(new Set([0, 1, 2, 3, 4, 5, 6, 7].map(at)).size).toBe(8)
})
