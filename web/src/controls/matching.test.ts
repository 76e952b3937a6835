import { expect, test } from 'vitest'
import { matching } from './matching'

const list = ['Reverb', 'Delay', 'Compressor', 'Equaliser'].map((name) => ({ name, words: ['effect'] }))
const found = (text: string) => matching(list, text, ['name', 'words']).map((x) => x.name)

test('words are found by their beginning and their middle', () => {
  expect(found('rev')).toEqual(['Reverb'])
  expect(found('press')).toEqual(['Compressor'])
  expect(found('effect delay')).toEqual(['Delay'])
})

test('a word with a letter missing, too many, another one, or two in the wrong order is found too', () => {
  for (const typed of ['revreb', 'revrb', 'rreverb', 'reberb', 'reveb'])
    expect(found(typed), typed).toEqual(['Reverb'])
  expect(found('compresor')).toEqual(['Compressor'])
  expect(found('equlaiser')).toEqual(['Equaliser'])
  expect(found('eff revreb')).toEqual(['Reverb'])
})

test('what is another word is not found', () => {
  expect(found('chorus')).toEqual([])
  expect(found('rxvyrb')).toEqual([])
})

test('a mistyped word is looked for among words, not among the letters of a sentence; what begins with it comes first', () => {
  const done = [
    'Main output in mono, or not',
    'Make the row a print',
    'Print the row to a new track',
    'Loop the range drawn on the ruler',
  ].map((name) => ({ name, words: ['row'] }))
  const by = (text: string) => matching(done, text, ['name', 'words']).map((x) => x.name)
  expect(by('prnt')).toEqual(['Print the row to a new track', 'Make the row a print'])
  expect(by('prnt track')).toEqual(['Print the row to a new track'])
  expect(by('mno'), 'three letters in their order are found as before').toContain(
    'Main output in mono, or not',
  )
})
