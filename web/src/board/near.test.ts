import { act, fireEvent, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { near, useNear } from './near'

const many = Array.from({ length: 200 }, (_, i) => 40 + (i % 3) * 30)
const sum = (list: number[]) => list.reduce((a, b) => a + b, 0)

test('few rows are all drawn, wherever the board stands', () => {
  expect(near(many.slice(0, 40), { top: 1000, bottom: 1500 })).toEqual({
    from: 0,
    to: 40,
    above: 0,
    below: 0,
  })
})

test('of very many those are drawn that are seen, and some beside them; the others keep their room', () => {
  for (let top = 0; top < sum(many); top += 217) {
    const { from, to, above, below } = near(many, { top, bottom: top + 600 })
    expect(above).toBe(sum(many.slice(0, from)))
    expect(below).toBe(sum(many.slice(to)))
    expect(above === 0 || above <= top - 600).toBe(true)
    expect(below === 0 || sum(many) - below >= top + 1200).toBe(true)
    expect(to - from).toBeGreaterThan(0)
    expect(to - from).toBeLessThan(50)
  }
})

let look: () => void = () => undefined
beforeEach(() => {
  vi.stubGlobal(
    'ResizeObserver',
    class {
      constructor(f: () => void) {
        look = f
      }
      observe() {}
      disconnect() {}
    },
  )
})
afterEach(() => void vi.unstubAllGlobals())

/** A board that is 600 pixels high and can be scrolled. */
function board() {
  const el = document.createElement('div')
  Object.defineProperty(el, 'clientHeight', { value: 600 })
  document.body.append(el)
  const box = { current: el }
  const { result } = renderHook(() => useNear(box, many))
  act(() => look())
  const scroll = (top: number) =>
    act(() => {
      el.scrollTop = top
      fireEvent.scroll(el)
    })
  return { el, result, scroll }
}

test('what is drawn follows the scrolling', () => {
  const { result, scroll } = board()
  expect(result.current.from).toBe(0)
  scroll(8000)
  expect(sum(many.slice(0, result.current.from))).toBeGreaterThan(6000)
  expect(sum(many.slice(0, result.current.to))).toBeGreaterThan(8600)
  scroll(0)
  expect(result.current.from).toBe(0)
})

test('nothing goes that may be held by the pointer, until it is let go', () => {
  const { result, scroll } = board()
  fireEvent.pointerDown(document.body)
  scroll(8000)
  expect(result.current.from, 'what is held is still there').toBe(0)
  expect(sum(many.slice(0, result.current.to))).toBeGreaterThan(8600)
  act(() => void fireEvent.pointerUp(document.body))
  expect(result.current.from).toBeGreaterThan(0)
})

test('a row that is not drawn is brought to the middle', () => {
  const { el, result } = board()
  act(() => {
    result.current.bring(150)
    fireEvent.scroll(el)
  })
  const top = sum(many.slice(0, 150))
  expect(el.scrollTop).toBe(top + many[150]! / 2 - 300)
  expect(result.current.from).toBeLessThan(150)
  expect(result.current.to).toBeGreaterThan(150)
})
