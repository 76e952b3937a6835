import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, expect, test } from 'vitest'
import type { Step } from '../api/types'
import { clip, draw, open } from '../testing/screen'
import { FakeServer, json } from '../testing/server'
import { LineageCard } from './LineageCard'

const step = (more: Partial<Step>): Step => ({
  audio: 'a',
  kind: 'place',
  title: 'Round 2 of Horn',
  row: 'r',
  state: 'further',
  since: [],
  of: [],
  by: 'Ines',
  ...more,
})

let server: FakeServer

beforeEach(() => {
  server = new FakeServer()
  open((p) => {
    const row = p.channels[0]!
    row.id = 'r'
    row.name = 'Horn'
    row.clips = [clip('c', { audio: 'a' })]
  })
})

const shown = async (s: Step) => {
  server.answers['GET /api/projects/p/steps/a'] = json(s)
  draw(<LineageCard clip="c" />)
  await screen.findByText(s.title)
  return [...document.querySelectorAll<HTMLElement>('[data-state]')]
}

test('steps are a tree, each with whether it holds', async () => {
  const first = step({ audio: 's', kind: 'source', title: 'Horn.wav', state: 'source' })
  const before = step({
    audio: 'b',
    title: 'Round 1 of Horn',
    state: 'changed',
    since: [{ says: 'Compressor: threshold −24 dB to −30 dB', by: 'Odo', at: '2026-11-28T12:04:00Z' }],
    of: [first],
  })
  const boxes = await shown(step({ of: [before] }))
  expect(boxes.map((b) => b.dataset.state)).toEqual(['further', 'changed', 'source'])
  expect(boxes[0]!.textContent).toContain('something further back has changed')
  expect(boxes[1]!.textContent).toContain('Since then: Compressor: threshold −24 dB to −30 dB (Odo')
  expect(boxes[2]!.textContent).toContain('the first sound')
  expect(within(boxes[1]!).queryByRole('button', { name: 'Print again' })).toBeNull() // no clip plays it
  expect(within(boxes[1]!).getByRole('button', { name: 'Put the chain back' })).toBeTruthy()
  expect(within(boxes[2]!).queryByRole('button')).toBeNull()
})

test('what has changed is printed again, or its chain is put back', async () => {
  const [box] = await shown(step({ state: 'changed', since: [{ says: 'Delay is new' }] }))
  server.answers['POST /api/projects/p/steps/a/again'] = json({ revision: 1, label: '' })
  server.answers['POST /api/projects/p/steps/a/chain'] = json({ revision: 1, label: '' })
  fireEvent.click(within(box!).getByRole('button', { name: 'Print again' }))
  await waitFor(() => expect(server.count('POST', '/api/projects/p/steps/a/again')).toBe(1))
  fireEvent.click(within(box!).getByRole('button', { name: 'Put the chain back' }))
  await waitFor(() => expect(server.count('POST', '/api/projects/p/steps/a/chain')).toBe(1))
})

test('what stands alone offers nothing of its row', async () => {
  const [box] = await shown(step({ state: 'alone', row: 'gone' }))
  expect(box!.textContent).toContain('its row has left the song')
  expect(within(box!).queryByRole('button')).toBeNull()
})

test('a sound that was not printed here says so', async () => {
  await shown(step({ kind: 'source', title: 'Horn.wav', state: 'source' }))
  expect(screen.getByText(/nothing lies before it/)).toBeTruthy()
})
