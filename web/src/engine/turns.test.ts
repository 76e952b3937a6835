import { expect, test } from 'vitest'
import { Turns } from './turns'

function turns() {
  let at = 0
  const ran: string[] = []
  const t = new Turns(() => at, 300)
  return {
    t,
    ran,
    add: (name: string, revision = false) => t.add(() => ran.push(name), revision),
    later: (ms: number) => (at += ms),
  }
}

test('all that waits is run in its order while there is time, and no longer', () => {
  const { t, ran, add } = turns()
  for (const name of ['a', 'b', 'c']) add(name)
  t.run(() => ran.length < 2)
  expect(ran).toEqual(['a', 'b'])
  t.run(() => true)
  expect(ran).toEqual(['a', 'b', 'c'])
  t.run(() => true)
  expect(ran).toHaveLength(3)
})

test('where there is never time, one that has waited long is taken at a time', () => {
  const { t, ran, add, later } = turns()
  add('a')
  add('b')
  t.run(() => false)
  expect(ran).toEqual([])
  later(301)
  t.run(() => false)
  expect(ran).toEqual(['a'])
  t.run(() => false)
  expect(ran).toEqual(['a', 'b'])
})

test('before an order the revisions are taken, and what was asked before them', () => {
  const { t, ran, add } = turns()
  add('question')
  add('revision', true)
  add('question of it')
  t.catchUp()
  expect(ran).toEqual(['question', 'revision'])
  t.catchUp()
  expect(ran).toHaveLength(2)
})
