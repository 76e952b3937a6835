import { expect, test } from 'vitest'
import { bindings } from './bindings'
import { inFull, keys } from './keys'
import { selection } from './steps'
import { open, stage } from '../testing/screen'
import { select } from '../session/selected'

test('docs/keys.md is what the card shows; make docs writes it', async () => {
  const said = keys.flatMap((g) => [
    `## ${g.group}`,
    g.list.map((k) => `- \`${k.key}\` ${inFull(k)}`).join('\n'),
  ])
  await expect(['# Keys', ...said].join('\n\n') + '\n').toMatchFileSnapshot('../../../docs/keys.md')
})

test('no key is listed twice in a group', () => {
  for (const g of keys) {
    const all = g.list.map((k) => `${k.key} ${k.on ?? ''}`)
    expect(new Set(all).size, g.group).toBe(all.length)
  }
})

test('no key has two uses for the same thing', () => {
  for (const b of bindings) {
    const on = b.uses.flatMap((u) => u.key.on ?? ['anything'])
    expect(on, b.on).toEqual([...new Set(on)])
  }
  const single = bindings.flatMap((b) => (b.on === '+,=' ? ['+', '='] : b.on.split(',')))
  expect(single.filter((k, i) => single.indexOf(k) !== i)).toEqual([])
  expect(single.length).toBeGreaterThan(60)
})

test('a key does what suits what is selected', () => {
  const use = (on: string) => bindings.find((b) => b.on === on)!
  open((p) => {
    p.channels[0]!.chain.nodes = [{ stage: stage('s', 'trim') }]
  })
  select('a', 's')
  expect(selection()).toBe('stage')
  expect(use('r').now()!.run).toBe(use('r').uses.find((u) => u.key.on?.includes('stage'))!.run)
  select('a')
  expect(selection()).toBe('row')
  expect(use('r').now()!.run).toBe(use('r').uses.find((u) => !u.key.on)!.run)
  expect(use('delete,backspace').now(), 'a row is not removed by a key').toBeUndefined()
})

test('while trials are compared blind, keys that would tell or change are closed', () => {
  const open = bindings.filter((b) => b.now()?.blind).map((b) => b.on)
  for (const k of ['space', 'y', 'shift+y', 'escape', 'z', 'up']) expect(open).toContain(k)
  for (const k of ['left', 'delete,backspace', 'o', 'b', 'w', 'ctrl+z,meta+z', '/'])
    expect(open).not.toContain(k)
})

test('where a key does several things, each has a name in the list of what can be done', () => {
  for (const k of keys.flatMap((g) => g.list)) {
    const several = new Set(Object.values(k.does ?? {})).size > 1
    if (!several) expect(k.each, k.says).toBeUndefined()
    else if (k.each?.length !== 0) expect(k.each?.length, k.says).toBe(Object.keys(k.does!).length)
  }
})
