import { fireEvent, screen, waitFor } from '@testing-library/react'
import { beforeEach, expect, test } from 'vitest'
import type { Change, Worked } from '../api/types'
import { Nodes } from '../bench/Braid'
import { setSession } from '../session/store'
import { draw, open, stage } from '../testing/screen'
import { FakeServer, json } from '../testing/server'
import { Ease } from './Ease'
import { LineMenu } from './LineMenu'
import { LineSays } from './LineSays'

const nodes = ['gate', 'equaliser', 'limiter'].map((e) => ({ stage: stage(`of ${e}`, e, { name: e }) }))

const print = (state: Worked['state'], more: Partial<Worked> = {}): Worked => ({
  key: 'k',
  clips: [],
  row: 'a',
  state,
  progress: 0.5,
  frames: 48000,
  lead: 0,
  ...more,
})

/** A row with three stages and a line behind the second, and how its print stands. */
function lined(work?: Worked) {
  const p = open((p) => {
    const row = p.channels[0]!
    row.id = 'a'
    row.chain.nodes = nodes
    row.waterline = 'of equaliser'
  })
  setSession({ worked: work ? [work] : [] })
  return p.channels[0]!
}

let server: FakeServer

beforeEach(() => {
  server = new FakeServer()
  server.answers['POST /api/projects/p/changes'] = json({ revision: 1, label: '' })
})

const done = () => server.asked.flatMap((x) => (x.body as { changes?: Change[] })?.changes ?? [])

const chain = (row: ReturnType<typeof lined>) =>
  draw(<Nodes nodes={row.chain.nodes} owner="a" channel={row} off={false} open={() => false} whole />)

test('the line says how its print stands, and is whole only where it holds', () => {
  const view = chain(lined(print('done')))
  const line = screen.getByRole('slider', { name: /^Line of/ })
  expect(line.getAttribute('aria-valuetext')).toBe('printed as far as equaliser: holds')
  expect(line.getAttribute('aria-valuenow')).toBe('2')
  expect(line.querySelector('path')!.hasAttribute('stroke-dasharray')).toBe(false)
  view.unmount()
  chain(lined(print('running')))
  const broken = screen.getByRole('slider', { name: /^Line of/ })
  expect(broken.getAttribute('aria-valuetext')).toContain('50 %')
  expect(broken.querySelector('path')!.hasAttribute('stroke-dasharray')).toBe(true)
})

test('keys move it by a stage and lift it', async () => {
  chain(lined(print('done')))
  const line = screen.getByRole('slider', { name: /^Line of/ })
  fireEvent.keyDown(line, { key: 'ArrowRight' })
  await waitFor(() => expect(done()).toEqual([{ type: 'waterline.put', do: { node: 'of limiter' } }]))
  fireEvent.keyDown(line, { key: 'Delete' })
  await waitFor(() => expect(done().at(-1)).toEqual({ type: 'channel.set', do: { id: 'a', waterline: '' } }))
})

test.each([
  ['done', 'printed, holds'],
  ['waiting', 'printed anew in a moment'],
  ['asked', 'until you print it again'],
  ['cancelled', 'called off'],
  ['failed', 'the disk is full'],
] as const)('a print that is %s says so', (state, says) => {
  draw(<LineSays channel={lined(print(state, { error: 'the disk is full' }))} />)
  expect(screen.getByTestId('line-says').textContent).toContain(says)
})

test('nothing is said of a row without a line', () => {
  const row = lined()
  draw(
    <>
      <LineSays channel={{ ...row, waterline: '' }} />
      <LineMenu channel={{ ...row, waterline: '' }} />
    </>,
  )
  expect(screen.queryByTestId('line-says')).toBeNull()
  expect(screen.queryByRole('button')).toBeNull()
})

test('the dearest rows are printed in one gesture', async () => {
  const row = lined()
  row.waterline = ''
  setSession({ spent: { 'of gate': 1e3, 'of limiter': 2e3 } })
  draw(<Ease />)
  expect(screen.getByText(/^frees/).textContent).toBe('frees 14 %')
  fireEvent.click(screen.getByRole('button', { name: 'Print this one behind the music' }))
  await waitFor(() => expect(done()).toEqual([{ type: 'waterline.put', do: { node: 'of limiter' } }]))
})
