import { render } from '@testing-library/react'
import { expect, test, vi } from 'vitest'
import type { Heard } from '../engine/engine'
import { rests, useHeard } from './meters'
import { setView } from './view'

const engine = vi.hoisted(() => ({ now: null as Heard | null }))
vi.mock('./sound', () => ({ theEngine: () => ({ heard: () => engine.now }) }))

const heard = (song: number) => ({ song, load: 0.1, truePeak: -20, peaks: new Map() }) as unknown as Heard

let painted: number[] = []
function Painter() {
  useHeard((h) => painted.push(h.song))
  return null
}

/** How many pictures are painted within a time, in ms. */
function within(ms: number) {
  painted = []
  vi.advanceTimersByTime(ms)
  return painted.length
}

test('a song that plays is painted without end; nothing is while nothing changes, and all of it as soon as anything does', () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'requestAnimationFrame', 'performance'] })
  render(<Painter />)
  for (let s = 0; s < 20; s++) {
    engine.now = heard(s * 48000)
    expect(within(1000)).toBeGreaterThan(20)
  }

  expect(within(1000)).toBeGreaterThan(20)
  vi.advanceTimersByTime(4000)
  expect(rests()).toBe(true)
  expect(within(5000)).toBe(0)

  engine.now = heard(4800)
  within(200)
  expect(painted.at(0)).toBe(4800)
  expect(rests()).toBe(false)
  vi.advanceTimersByTime(5000)

  setView({ zoom: 100 })
  expect(within(1000), 'what this window shows has changed').toBeGreaterThan(20)
  vi.advanceTimersByTime(5000)

  window.dispatchEvent(new KeyboardEvent('keydown', { key: ' ' }))
  expect(within(1000), 'somebody does something').toBeGreaterThan(20)
})
