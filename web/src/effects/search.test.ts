import { beforeEach, expect, test } from 'vitest'
import type { EffectInfo } from '../api/types'
import { setView } from '../session/view'
import { favourites, recent, remember, search, toggleFavourite } from './search'

const effect = (id: string, family: string, synonyms: string[], says = ''): EffectInfo =>
  ({
    id,
    version: 1,
    name: id[0]!.toUpperCase() + id.slice(1),
    family,
    says,
    synonyms,
    params: [],
    mix: 100,
    mixLaw: 'blend',
  }) as unknown as EffectInfo

const list = [
  effect('trim', 'Level', ['gain']),
  effect('equaliser', 'Tone', ['eq']),
  effect('delay', 'Time', ['echo'], 'Repeats the signal.'),
  effect('reverb', 'Space', ['echo chamber', 'room']),
]
const ids = (text: string, recents: string[] = [], likes: string[] = []) =>
  search(list, text, recents, likes).map((f) => [f.name, f.effects.map((e) => e.id)])

beforeEach(() => setView({ recent: [], favourites: [] }))

test('families stand in order, favourites and recent ones above them and only once', () => {
  expect(ids('')).toEqual([
    ['Level', ['trim']],
    ['Tone', ['equaliser']],
    ['Time', ['delay']],
    ['Space', ['reverb']],
  ])
  expect(ids('', ['delay', 'reverb'], ['reverb'])).toEqual([
    ['Favourites', ['reverb']],
    ['Recent', ['delay']],
    ['Level', ['trim']],
    ['Tone', ['equaliser']],
  ])
})

test('names come before synonyms, synonyms before what is said', () => {
  expect(ids('echo')).toEqual([['Found', ['delay', 'reverb']]])
  expect(ids('re')).toEqual([['Found', ['reverb', 'delay']]])
  expect(ids('nothing of the kind')).toEqual([])
})

test('a name comes before what another only goes by as well', () => {
  const more = [effect('convolver', 'Space', ['reverb', 'impulse']), ...list]
  expect(search(more, 'reverb', []).map((f) => f.effects.map((e) => e.id))).toEqual([['reverb', 'convolver']])
})

test('the last three are remembered, the newest first', () => {
  for (const id of ['a', 'b', 'c', 'b', 'd']) remember(id)
  expect(recent()).toEqual(['d', 'b', 'c'])
  expect(toggleFavourite('x')).toEqual(['x'])
  expect(toggleFavourite('y')).toEqual(['x', 'y'])
  expect(toggleFavourite('x')).toEqual(['y'])
  expect(favourites()).toEqual(['y'])
})

test('a letter that is missing is forgiven, where nothing goes by what was typed', () => {
  expect(ids('equliser')).toEqual([['Found', ['equaliser']]])
  expect(ids('revrb')).toEqual([['Found', ['reverb']]])
  expect(ids('zz')).toEqual([])
})
