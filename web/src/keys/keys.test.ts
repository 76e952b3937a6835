import { expect, test } from 'vitest'
import { bindings } from './bindings'
import { keys } from './keys'

test('docs/keys.md is what the card shows; make docs writes it', async () => {
  const said = keys.flatMap((g) => [
    `## ${g.group}`,
    g.list.map(({ key, says }) => `- \`${key}\` ${says}`).join('\n'),
  ])
  await expect(['# Keys', ...said].join('\n\n') + '\n').toMatchFileSnapshot('../../../docs/keys.md')
})

test('no key is listed twice in a group', () => {
  for (const g of keys) expect(new Set(g.list.map((k) => k.key)).size, g.group).toBe(g.list.length)
})

test('no key does two things on the board', () => {
  const all = bindings.flatMap((b) => (b.on === '+,=' ? ['+', '='] : b.on.split(',')))
  expect(all.filter((k, i) => all.indexOf(k) !== i)).toEqual([])
  expect(all.length).toBeGreaterThan(60)
})

test('while trials are compared blind, keys that would tell or change are closed', () => {
  const open = bindings.filter((b) => b.blind).map((b) => b.on)
  for (const k of ['space', 'y', 'shift+y', 'escape', 'z', 'up']) expect(open).toContain(k)
  for (const k of ['left', 'delete,backspace', 'o', 'b', 'w', 'ctrl+z,meta+z', '/'])
    expect(open).not.toContain(k)
})
