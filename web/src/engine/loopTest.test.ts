import { expect, test } from 'vitest'
import { comesBack } from './loopTest'

const noise = (n: number) => 0.002 * Math.abs(Math.sin(n * 1.7))

test('a click is found at its first frame, above what is there anyway', () => {
  const late = 2913
  const loud = (n: number) => (n >= 5000 + late ? 0.3 : noise(n))
  expect(comesBack(loud, 3000, 5000, 53000) - 5000).toBe(late)
})

test('noise is no click, and where none comes it is said what to do', () => {
  expect(() => comesBack(noise, 3000, 5000, 53000)).toThrow('No click came back')
  expect(() => comesBack((n) => 40 * noise(n), 3000, 5000, 53000)).toThrow('No click came back')
})
