import { renderHook } from '@testing-library/react'
import { beforeEach, expect, test } from 'vitest'
import { setSession } from '../session/store'
import { select } from '../session/selected'
import { setView, view } from '../session/view'
import { effect, open, stage } from '../testing/screen'
import { useMenuHere } from '../controls/menusHere'
import { commands } from './commands'

const names = () => commands().map((c) => c.name)

beforeEach(() => {
  open((p) => {
    p.channels[0]!.name = 'Choir'
    p.channels[0]!.chain.nodes = [{ stage: stage('s', 'trim') }]
  })
  setView({ channel: '', stage: '', dialog: null, theme: 'day' })
  setSession({ effects: [] })
})

test('what is offered depends on what is selected, and says what it acts on', () => {
  select('a', 's')
  expect(commands().find((c) => c.name === 'Bypass it')).toMatchObject({ key: 'B', of: 'trim' })
  select('a')
  expect(names()).not.toContain('Bypass it')
  expect(names()).toContain('Go to Choir')
})

test('effects are added behind what is selected; their synonyms find them', () => {
  setSession({ effects: [effect('reverb', { name: 'Reverb', synonyms: ['hall'], version: 1, newest: 1 })] })
  select('a', 's')
  const add = commands().find((c) => c.name === 'Add Reverb')!
  expect(add.of).toBe('Choir')
  expect(add.words).toContain('hall')
})

test('a row is gone to, and what is done once is done by its key too', () => {
  commands()
    .find((c) => c.name === 'Go to Choir')!
    .run()
  expect(view().channel).toBe('a')
  const keysCard = commands().find((c) => c.name === 'This card')!
  expect(keysCard.key).toBe('?')
  keysCard.run()
  expect(view().dialog).toEqual({ kind: 'keys' })
})

test('a key that does two things is two commands, and each does its own', () => {
  select('a')
  const [one, other] = ['Solo the row, or not', 'Solo the row, and no other'].map((n) =>
    commands().find((c) => c.name === n)!,
  )
  expect([one!.key, other!.key]).toEqual(['H', 'Shift H'])
  one!.run()
  expect(view().solo).toEqual(['a'])
})

test('a key that does something else with what is selected is not said', () => {
  const print = () => commands().find((c) => c.name === 'Print the row to a new track')!
  select('a')
  expect(print().key).toBe('P')
  select('a', 's')
  expect(print().key).toBeUndefined()
})

test('what only the menu of what is selected offers is found by words too', () => {
  const run = () => setView({ renaming: 's' })
  const menu = [
    { text: 'Make it a send and a return', run },
    { text: 'Name it', key: 'N', run },
    { text: 'Not now', off: true, run },
  ]
  const { unmount } = renderHook(() => useMenuHere('stage s', menu))
  select('a', 's')
  const send = commands().find((c) => c.name === 'Make it a send and a return')!
  expect(send.of).toBe('trim')
  send.run()
  expect(view().renaming).toBe('s')
  expect(names()).not.toContain('Not now')
  expect(names()).not.toContain('Name it') // by its key it is there
  select('a')
  expect(names()).not.toContain('Make it a send and a return')
  unmount()
})
