import { fireEvent, screen } from '@testing-library/react'
import { expect, test, vi } from 'vitest'
import type { Param } from '../api/types'
import { useSession } from '../session/store'
import { draw, open, param } from '../testing/screen'
import { Scale } from './Scale'

function scale(p: Partial<Param> = {}, value = 0, more: Partial<Parameters<typeof Scale>[0]> = {}) {
  open()
  const onMove = vi.fn()
  draw(<Scale param={param(p)} value={value} onMove={onMove} {...more} />)
  return { onMove, slider: screen.getByRole('slider') }
}

test('a scale says what it is, where it stands and how far it goes', () => {
  const { slider } = scale({}, -6)
  expect(slider.getAttribute('aria-label')).toBe('Gain')
  expect(slider.getAttribute('aria-valuenow')).toBe('-6')
  expect(slider.getAttribute('aria-valuemin')).toBe('-24')
  expect(slider.getAttribute('aria-valuemax')).toBe('24')
  expect(slider.getAttribute('aria-valuetext')).toBe('−6.0 dB')
})

test('arrows step, with Shift by a tenth, Page keys by ten; nothing leaves the range', () => {
  const { slider, onMove } = scale({}, 23.8)
  const press = (key: string, shiftKey = false) => {
    fireEvent.keyDown(slider, { key, shiftKey })
    return onMove.mock.lastCall![0] as number
  }
  expect(press('ArrowLeft')).toBeCloseTo(23.3)
  expect(press('ArrowLeft', true)).toBeCloseTo(23.8, 1)
  expect(press('ArrowRight')).toBe(24)
  expect(press('PageDown')).toBeCloseTo(18.8)
  expect(press('Home')).toBe(-24)
  expect(press('End')).toBe(24)
  expect(press('Backspace')).toBe(0)
  expect(press('0')).toBe(0)
})

test('a value is typed; what is out of range is brought in with a word, what is none is left', () => {
  const { slider, onMove } = scale()
  const type = (text: string) => {
    fireEvent.keyDown(slider, { key: 'Enter' })
    const field = screen.getByRole('textbox', { name: /type a value/ })
    fireEvent.change(field, { target: { value: text } })
    fireEvent.keyDown(field, { key: 'Enter' })
  }
  type('-4,5')
  expect(onMove).toHaveBeenLastCalledWith(-4.5, true)
  type('99')
  expect(onMove).toHaveBeenLastCalledWith(24, true)
  expect(useSession.getState().notices.at(-1)?.text).toBe(
    'Gain goes from −24.0 dB to +24.0 dB: it is now at +24.0 dB.',
  )
  onMove.mockClear()
  type('loud')
  expect(onMove).not.toHaveBeenCalled()
})

test('a drag moves by its way along the ruler, with Shift by a tenth of it, and rests when let go', () => {
  const { slider, onMove } = scale()
  slider.getBoundingClientRect = () => ({ left: 0, width: 100, top: 0, height: 20 }) as DOMRect
  slider.setPointerCapture = () => undefined
  fireEvent.pointerDown(slider, { button: 0, clientX: 50, pointerId: 1 })
  expect(onMove, 'a press at the pointer moves nothing').not.toHaveBeenCalled()
  fireEvent.pointerMove(slider, { clientX: 60 })
  expect(onMove.mock.lastCall![0]).toBeCloseTo(4.8)
  fireEvent.pointerMove(slider, { clientX: 70, shiftKey: true })
  expect(onMove.mock.lastCall![0]).toBeCloseTo(5.28)
  fireEvent.pointerUp(slider)
  expect(onMove).toHaveBeenLastCalledWith(0, true)
  onMove.mockClear()
  fireEvent.pointerMove(slider, { clientX: 90 })
  expect(onMove).not.toHaveBeenCalled()
})

test('X opens its line and M all that moves it, and the board gets neither', () => {
  const onLine = vi.fn()
  const onMoves = vi.fn()
  const { slider } = scale({}, 0, { onLine, onMoves, moved: { low: 0.2, high: 0.8, by: 'mover' } })
  const board = vi.fn()
  window.addEventListener('keydown', board)
  fireEvent.keyDown(slider, { key: 'x' })
  fireEvent.keyDown(slider, { key: 'M' })
  expect(onLine).toHaveBeenCalledOnce()
  expect(onMoves).toHaveBeenCalledOnce()
  expect(board).not.toHaveBeenCalled()
  fireEvent.keyDown(slider, { key: 'q' })
  expect(board, 'other keys are the board’s').toHaveBeenCalledOnce()
  fireEvent.click(screen.getByRole('button', { name: 'mover' }))
  expect(onMoves).toHaveBeenCalledTimes(2)
  window.removeEventListener('keydown', board)
})

test('a choice goes from one to the next and says its name', () => {
  const { slider, onMove } = scale(
    { taper: 'choice', choices: ['bell', 'notch', 'shelf'], min: 0, max: 2, unit: '' },
    1,
  )
  expect(slider.getAttribute('aria-valuetext')).toBe('notch')
  fireEvent.keyDown(slider, { key: 'ArrowRight', shiftKey: true })
  expect(onMove).toHaveBeenLastCalledWith(2, false)
})
