import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useGradually } from './gradually'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

test('few rows are drawn at once; of very many those that are seen at first, and in a while all', () => {
  expect(renderHook(() => useGradually(13, 2)).result.current).toBe(13)
  const { result } = renderHook(() => useGradually(200, -1))
  expect(result.current).toBeLessThan(50)
  let before = 0
  for (let i = 0; i < 30; i++) {
    expect(result.current).toBeGreaterThanOrEqual(before)
    before = result.current
    act(() => void vi.advanceTimersByTime(10))
  }
  expect(result.current).toBe(200)
})

test('whoever wants a row that is not drawn yet has all of them at once', () => {
  expect(renderHook(() => useGradually(200, 150)).result.current).toBe(200)
})
