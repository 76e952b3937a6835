import { fireEvent, screen } from '@testing-library/react'
import { beforeEach, expect, test, vi } from 'vitest'
import { session, setSession } from '../session/store'
import { draw, effect, open, param, stage } from '../testing/screen'
import { Plumb, plumbsOf } from './Plumb'

vi.mock('../session/sound', () => ({ theEngine: () => null }))

const band = effect('equaliser', {
  params: [
    param({ name: 'gain3' }),
    param({ name: 'freq3', label: 'Frequency', unit: 'Hz', min: 20, max: 20000, digits: 0 }),
  ],
})
const mix = param({ name: 'mix', label: 'Mix', unit: '%', min: 0, max: 100, default: 100 })

beforeEach(() => {
  open((p) => (p.channels[0]!.chain.nodes = [{ stage: stage('s', 'trim') }]))
})

test('what hangs under a stage is what Go chose, named by its label or by another value', () => {
  const s = stage('s', 'equaliser', { params: { gain3: -4, freq3: 340 } })
  expect(plumbsOf(s, band, mix, [{ param: 'gain3', named: 'freq3' }, { param: 'mix' }])).toMatchObject([
    { value: -4, caption: '340 Hz' },
    { value: 100, caption: 'Mix' },
  ])
  expect(plumbsOf(s, band, mix, undefined)).toEqual([])
  expect(plumbsOf(s, undefined, mix, [{ param: 'mix' }])).toEqual([])
})

test('a plumb hangs: up is more, and what is typed is taken', () => {
  draw(<Plumb owner="s" param={param()} value={-12} of="Trim" caption="Gain" />)
  const slider = screen.getByRole('slider', { name: 'Gain of Trim' })
  expect(slider?.getAttribute('aria-orientation')).toBe('vertical')
  expect(slider?.getAttribute('aria-valuenow')).toBe('-12')
  fireEvent.keyDown(slider, { key: 'ArrowUp' })
  expect(session().moving['s gain']).toBe(-11.5)
  fireEvent.keyDown(slider, { key: 'ArrowRight' })
  expect(session().moving['s gain'], 'sideways it does not move').toBe(-11.5)
  fireEvent.keyDown(slider, { key: 'Enter' })
  fireEvent.change(screen.getByLabelText('Gain of Trim, type a value'), { target: { value: '-3' } })
  fireEvent.keyDown(screen.getByLabelText('Gain of Trim, type a value'), { key: 'Enter' })
  expect(session().moving['s gain']).toBe(-3)
})

test('it says who else has just moved it', () => {
  setSession({ theirs: { 's gain': 'Bo' } })
  draw(<Plumb owner="s" param={param()} value={0} of="Trim" caption="Gain" />)
  const pointer = screen.getByRole('slider').querySelector('path:last-of-type')
  expect(pointer?.getAttribute('fill')).toBe('var(--live)')
})
