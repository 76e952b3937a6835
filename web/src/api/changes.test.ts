import { expect, test } from 'vitest'
import type { Change, Fields } from './types'

/* What these say is checked by the compiler: a directive that is not needed is an error. */

test('a change has a name and the fields that Go knows', () => {
  const good: Change[] = [
    { type: 'stage.add', do: { owner: 'row', index: 0, effect: 'delay' } },
    { type: 'mover.set', do: { id: 'm', what: { rate: 2, follow: null } } },
  ]
  const bad: Change[] = [
    // @ts-expect-error: there is no such change
    { type: 'stage.ad', do: { owner: 'row', index: 0, effect: 'delay' } },
    // @ts-expect-error: the field is called owner
    { type: 'stage.add', do: { onwer: 'row', index: 0, effect: 'delay' } },
    // @ts-expect-error: an index is a number
    { type: 'stage.add', do: { owner: 'row', index: '0', effect: 'delay' } },
    // @ts-expect-error: the effect must be said
    { type: 'stage.add', do: { owner: 'row', index: 0 } },
    // @ts-expect-error: a mover has no such field
    { type: 'mover.set', do: { id: 'm', what: { speed: 2 } } },
  ]
  expect([...good, ...bad].every((c) => c.type && c.do)).toBe(true)
})

test('the fields of a change are found by its name', () => {
  const fields: Fields<'clip.set'> = { id: 'clip', gain: -3 }
  // @ts-expect-error: a clip has no fader
  const wrong: Fields<'clip.set'> = { id: 'clip', fader: -3 }
  expect([fields.id, wrong.id]).toEqual(['clip', 'clip'])
})
