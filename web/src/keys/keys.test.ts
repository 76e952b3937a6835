import { expect, test } from 'vitest'
import { keys } from './keys'

test('docs/keys.md is what the card shows; make docs writes it', async () => {
  const said = keys.flatMap((g) => [
    `## ${g.group}`,
    g.list.map(([key, says]) => `- \`${key}\` ${says}`).join('\n'),
  ])
  await expect(['# Keys', ...said].join('\n\n') + '\n').toMatchFileSnapshot('../../../docs/keys.md')
})

test('no key is listed twice in a group', () => {
  for (const g of keys) expect(new Set(g.list.map(([k]) => k)).size, g.group).toBe(g.list.length)
})
