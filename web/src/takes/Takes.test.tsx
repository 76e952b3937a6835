import { fireEvent, screen, waitFor } from '@testing-library/react'
import { beforeEach, expect, test } from 'vitest'
import type { Change, Take, Timeline } from '../api/types'
import { setSession } from '../session/store'
import { setView } from '../session/view'
import { draw, open } from '../testing/screen'
import { FakeServer, json } from '../testing/server'
import { RecordButton } from './RecordButton'
import { Taking } from './Taking'
import { TakesCard } from './TakesCard'
import { WayIn } from './WayIn'

const take = (n: number, more: Partial<Take> = {}): Take => ({
  id: `t${n}`,
  row: 'a',
  number: n,
  name: `Take ${n}`,
  input: 'reader',
  untouched: `u${n}`,
  treated: `w${n}`,
  through: ['Equaliser', 'Compressor'],
  runs: [{ input: 0, song: 1000, frames: 9000 }],
  loud: -24,
  loudTreated: -19.8,
  ...more,
})

const timeline = {
  clips: { c: 1000 },
  bars: [{ frame: 0 }, { frame: 96000 }],
  rate: 48000,
} as unknown as Timeline

/** A row that plays the second of three takes, through its way in. */
function recorded() {
  const p = open((p) => {
    const row = p.channels[0]!
    row.id = 'a'
    row.records = 'reader'
    row.chain.nodes = ['one', 'two', 'three'].map((id) => ({
      stage: {
        id,
        name: id,
        effect: 'trim',
        version: 1,
        params: {},
        bypass: false,
        mix: 100,
        mixLaw: 'blend',
        actsOn: 'both',
        ringOut: false,
        mixLock: false,
      },
    }))
    row.wayIn = 'two'
    row.clips = [
      {
        id: 'c',
        name: 'Take 2',
        audio: 'w2',
        take: 't2',
        enters: 'wayIn',
        follows: false,
        start: 1000,
        offset: 0,
        frames: 9000,
        gain: 0,
        fadeIn: 0,
        fadeOut: 0,
        exact: false,
      },
    ]
    p.takes = [
      take(1),
      take(2),
      take(3, { ended: 'ended early: the window was closed', dropped: true }),
      take(4, { runs: [{ input: 0, song: 9990, frames: 9000 }] }),
    ]
  })
  setSession({ timeline })
  return p.channels[0]!
}

let server: FakeServer

beforeEach(() => {
  server = new FakeServer()
  server.answers['POST /api/projects/p/changes'] = json({ revision: 1, label: '' })
  setView({ piece: null })
  setSession({ recording: null, ready: {}, counting: 0 })
})

const done = () => server.asked.flatMap((x) => (x.body as { changes?: Change[] })?.changes ?? [])
const card = () => draw(<TakesCard row="a" from={1000} to={10000} />)

test('the takes of a place are listed with the form that is heard; what was put away, and what only touches it, is not', () => {
  recorded()
  card()
  expect(screen.getAllByRole('listitem').map((x) => x.getAttribute('aria-label'))).toEqual([
    'Take 1',
    'Take 2, treated, heard',
  ])
  fireEvent.click(screen.getByRole('button', { name: '1 put away: show' }))
  expect(screen.getAllByRole('listitem')).toHaveLength(3)
  expect(screen.getByText('ended early: the window was closed')).toBeTruthy()
})

test('a form is chosen where the takes of its place sound, or for the range that is drawn', async () => {
  recorded()
  const view = card()
  fireEvent.click(screen.getAllByRole('button', { name: 'untouched' })[0]!)
  await waitFor(() => expect(done()).toEqual([{ type: 'take.choose', do: { id: 't1', untouched: true } }]))
  view.unmount()
  setView({ piece: { from: 3000, to: 4000, rows: ['a'] } })
  card()
  fireEvent.click(screen.getByRole('button', { name: 'treated' }))
  await waitFor(() =>
    expect(done().at(-1)).toEqual({
      type: 'take.choose',
      do: { id: 't1', from: 3000, to: 4000, untouched: false },
    }),
  )
})

test('arrow keys step through them in the form that is heard', async () => {
  recorded()
  card()
  fireEvent.keyDown(screen.getByRole('dialog'), { key: 'ArrowDown' }) // there is none behind it
  fireEvent.keyDown(screen.getByRole('dialog'), { key: 'ArrowUp' })
  await waitFor(() => expect(done()).toEqual([{ type: 'take.choose', do: { id: 't1', untouched: false } }]))
})

test('keys move the way in by a stage; taken away, it is asked what becomes of what was recorded through it', async () => {
  const row = recorded()
  draw(<WayIn channel={row} height={100} />)
  const mark = screen.getByRole('slider', { name: /^Way in of/ })
  expect(mark.getAttribute('aria-valuenow')).toBe('2')
  fireEvent.keyDown(mark, { key: 'ArrowRight' })
  await waitFor(() => expect(done()).toEqual([{ type: 'way-in.put', do: { node: 'three' } }]))
  fireEvent.keyDown(mark, { key: 'Delete' })
  expect(done()).toHaveLength(1)
  const { view } = await import('../session/view')
  expect(view().dialog).toEqual({ kind: 'wayIn', row: 'a' })
})

test('the button says what it does, and counts', () => {
  recorded()
  draw(<RecordButton />)
  const button = screen.getByRole('button')
  expect(button.textContent).toBe('Record')
  fireEvent.click(button)
  const recording = { id: 'r', rows: ['a'], overviews: {}, gone: [], ending: false }
  setSession({ recording, counting: 3 })
  return waitFor(() => expect(button.textContent).toBe('in 3'))
})

test('what is recorded grows where it lies; of a loop the last round is seen', () => {
  const o = (song: number) => ({ song, step: 1000, levels: new Float32Array([0.5, 0.1, 0.25, 0.1]) })
  const overviews = { a: [o(0), o(2000), o(500), o(2500)] }
  setSession({ recording: { id: 'r', rows: ['a'], overviews, gone: ['a'], ending: false } })
  const lens = { x: (f: number) => f / 10, frame: (x: number) => x * 10, perPixel: 10, scroll: 0 }
  draw(<Taking row="a" lens={lens} height={40} />)
  const seen = screen.getAllByRole('img', { name: 'Being recorded' })
  expect(seen.map((x) => [x.style.left, x.style.width])).toEqual([['50px', '400px']])
  expect(seen[0]!.textContent).toContain('the input has gone')
})
