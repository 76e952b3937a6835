import { expect, test } from 'vitest'
import type { Trace } from '../api/types'
import { legs } from './traced'

const step = (channel: string, gain = 0, at = '') => ({ channel, at, says: '', gain, changes: false })

test('a way is what leads from row to row; from where nothing comes through it is dead', () => {
  const trace: Trace = {
    from: 'a',
    to: 'main',
    says: '',
    sum: -5,
    ways: [
      { total: -5, steps: [step('a', -4, 'a'), step('main'), step('main', -1, 'main')] },
      {
        total: -120,
        steps: [step('a', -4, 'a'), step('hall', -120, 'send'), step('hall', -3, 'hall'), step('main')],
      },
    ],
  }
  expect(legs(trace)).toEqual([
    { from: 'a', to: 'main', way: 0, dead: false },
    { from: 'a', to: 'hall', way: 1, dead: true },
    { from: 'hall', to: 'main', way: 1, dead: true },
  ])
})
