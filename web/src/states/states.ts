import type { LineValue, Param } from '../api/types'

export const level: Param = {
  name: 'level',
  label: 'Level',
  unit: 'dB',
  says: 'How loud it is.',
  min: -60,
  max: 6,
  default: 0,
  taper: 'linear',
  step: 0.5,
  digits: 1,
}

const moved = (by: LineValue['by'], low: number, high: number): LineValue => ({
  owner: '',
  name: '',
  value: -12,
  by,
  low,
  high,
})

/** Every state that a scale can be in. */
export const scales: [string, { moved?: LineValue; theirs?: string; refused?: boolean }][] = [
  ['as it is', {}],
  ['moved by a line', { moved: moved('line', 0.3, 0.7) }],
  ['moved by a mover', { moved: moved('mover', 0.6, 0.9) }],
  ['moved by a handle', { moved: moved('handle', 0.5, 0.8) }],
  ['held by a passage', { moved: moved('passage', 0, 1) }],
  ['held by somebody else', { theirs: 'Odo' }],
  ['refused', { refused: true }],
]
