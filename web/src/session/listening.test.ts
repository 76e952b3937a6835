import { expect, test } from 'vitest'
import { open, stage } from '../testing/screen'
import { listenTo } from './listening'
import { select } from './selected'
import { session } from './store'
import { setView, view } from './view'

const song = () =>
  open((p) => {
    p.channels[0]!.chain.nodes = [{ stage: stage('on row', 'trim') }]
    p.treatments = [
      { id: 't', name: '', chain: { bypass: false, nodes: [{ stage: stage('on piece', 'trim') }] } },
    ]
  })

test('a stage of a row is listened to; one of a piece is heard with the piece, and it is said', () => {
  song()
  listenTo('on row', false)
  expect(view().listening?.node).toBe('on row')
  setView({ listening: null })
  listenTo('on piece', false)
  expect(view().listening).toBe(null)
  expect(session().notices.at(-1)?.text).toMatch(/heard with the piece/)
})

test('selecting what stands in a treatment keeps its clips and their row', () => {
  const p = song()
  setView({ channel: p.channels[0]!.id, clips: ['c'] })
  select('t', 'on piece')
  expect(view()).toMatchObject({ channel: p.channels[0]!.id, stage: 'on piece', clips: ['c'] })
  select(p.channels[0]!.id, 'on row')
  expect(view()).toMatchObject({ stage: 'on row', clips: [] })
})
