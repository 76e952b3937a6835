import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { setView } from '../session/view'
import { focusOn } from './focus'

let board: HTMLElement

beforeEach(() => {
  vi.stubGlobal('requestAnimationFrame', (run: () => void) => run())
  board = document.createElement('div')
  board.innerHTML = '<button data-stage="s">Trim</button><input aria-label="Search effects" />'
  document.body.append(board)
  setView({ stage: 's', dialog: null })
})

afterEach(() => {
  board.remove()
  vi.unstubAllGlobals()
  setView({ stage: '', dialog: null })
})

const stage = () => board.querySelector('button')

test('a stage that has just come has the focus', () => {
  focusOn('s')
  expect(document.activeElement).toBe(stage())
})

test('who types, has opened something or has selected another one is not called back', () => {
  board.querySelector('input')!.focus()
  focusOn('s')
  expect(document.activeElement).toBe(board.querySelector('input'))
  board.querySelector('input')!.blur()

  setView({ dialog: { kind: 'effects', owner: 'a', index: 0 } })
  focusOn('s')
  setView({ dialog: null, stage: 'other' })
  focusOn('s')
  expect(document.activeElement).not.toBe(stage())
})
