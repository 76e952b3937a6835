import { act, fireEvent, screen } from '@testing-library/react'
import { expect, test } from 'vitest'
import { useView, view } from '../session/view'
import { draw, open, stage } from '../testing/screen'
import { ChainView } from './ChainView'

function chain(...stages: ReturnType<typeof stage>[]) {
  const p = open((p) => {
    p.channels[0]!.chain.nodes = stages.map((s) => ({ stage: s }))
  })
  draw(<ChainView channel={p.channels[0]!} />)
  return p
}

const cards = () => screen.getAllByLabelText(/, place \d/)

test('stages stand in the order of the signal, by their own names or those of their effects', () => {
  chain(stage('a', 'trim', { name: 'Less' }), stage('b', 'reverb'), stage('c', 'sparkle'))
  expect(cards().map((c) => c.getAttribute('aria-label'))).toEqual([
    expect.stringMatching(/^Less.*place 1/),
    expect.stringMatching(/^Reverb.*place 2/),
    expect.stringMatching(/^sparkle.*place 3/),
  ])
})

test('what is bypassed says so, one by one and as a whole', () => {
  chain(stage('a', 'trim', { bypass: true }), stage('b', 'reverb'))
  expect(cards()[0]!.getAttribute('aria-label')).toContain('bypassed')
  expect(cards()[1]!.getAttribute('aria-label')).not.toContain('bypassed')
})

test('a press selects, with Ctrl besides others', () => {
  chain(stage('a', 'trim'), stage('b', 'reverb'))
  fireEvent.click(cards()[0]!)
  expect(view().stage).toBe('a')
  fireEvent.click(cards()[1]!, { ctrlKey: true })
  expect(view().together.sort()).toEqual(['a', 'b'])
})

test('the end of the chain takes another stage', () => {
  chain(stage('a', 'trim'))
  fireEvent.click(screen.getByRole('button', { name: /Add a stage/ }))
  expect(view().dialog).toEqual({ kind: 'effects', owner: 'a', index: 1 })
})

test('an empty chain is a place to begin', () => {
  chain()
  expect(screen.queryAllByLabelText(/, place \d/)).toEqual([])
  fireEvent.click(screen.getByRole('button', { name: /Add a stage/ }))
  expect(view().dialog).toMatchObject({ owner: 'a', index: 0 })
})

test('while alternatives are compared blind nothing of them is drawn', () => {
  chain(stage('a', 'trim', { name: 'Less' }))
  act(() => {
    useView.setState({ blind: { channel: 'a', order: ['a', 't'] } })
  })
  expect(screen.queryByText('Less')).toBeNull()
  expect(screen.getByText(/are compared blind/)).toBeTruthy()
})
