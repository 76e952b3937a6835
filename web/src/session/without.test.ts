import { afterAll, beforeEach, expect, test, vi } from 'vitest'
import { open, stage } from '../testing/screen'
import { session } from './store'
import * as changes from './changes'
import { setView, view } from './view'
import { holdWithout } from './without'

const tried = vi.spyOn(changes, 'tryChanges').mockResolvedValue()

afterAll(() => tried.mockRestore())

beforeEach(() => {
  tried.mockClear()
  setView({ pointed: '', without: '', stage: '' })
  open((p) => {
    p.channels[0]!.chain.nodes = [
      { stage: stage('s', 'trim') },
      { stage: stage('off', 'trim', { bypass: true }) },
    ]
  })
})

const letGo = () => window.dispatchEvent(new KeyboardEvent('keyup', { key: '5' }))
const set = (id: string, bypass: boolean) => [{ type: 'node.set', do: { id, bypass } }]

test('what is pointed at is not heard while the key is held, also where another one is selected', () => {
  setView({ pointed: 's', stage: 'off' })
  holdWithout()
  holdWithout() // the key repeats
  expect(tried.mock.calls).toEqual([[set('s', true)]])
  expect(view().without).toBe('s')
  letGo()
  expect(tried).toHaveBeenLastCalledWith([])
  expect(view().without).toBe('')
})

test('what is bypassed is heard, and a window that is left lets go', () => {
  setView({ stage: 'off' })
  holdWithout()
  expect(tried).toHaveBeenLastCalledWith(set('off', false))
  window.dispatchEvent(new Event('blur'))
  expect(tried).toHaveBeenLastCalledWith([])
})

test('where nothing is pointed at it is said', () => {
  holdWithout()
  expect(tried).not.toHaveBeenCalled()
  expect(session().notices.at(-1)?.text).toContain('Point at a stage')
})
