import { expect, test } from 'vitest'
import { ago } from './when'

test('how long ago something was', () => {
  const now = new Date('2026-11-29T12:00:00Z').getTime()
  const says = (time: string) => ago(time, now)
  expect(says('2026-11-29T11:59:40Z')).toBe('just now')
  expect(says('2026-11-29T11:58:10Z')).toBe('1 minute ago')
  expect(says('2026-11-29T09:00:00Z')).toBe('3 hours ago')
  expect(says('2026-11-28T11:00:00Z')).toBe('yesterday')
  expect(says('2026-11-03T11:00:00Z')).toContain('2026')
})
