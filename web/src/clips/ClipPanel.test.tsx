import { fireEvent, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Clip } from '../api/types'
import { setSession } from '../session/store'
import { clip, draw, open, param } from '../testing/screen'
import { ClipPanel } from './ClipPanel'

const asked: { type: string; do: Record<string, unknown> }[][] = []

beforeEach(() => {
  asked.length = 0
  vi.stubGlobal('fetch', (input: RequestInfo | URL) => {
    const r = input as Request
    if (!r.url.endsWith('/changes')) return Promise.resolve(Response.json([]))
    return r.json().then((body: { changes: (typeof asked)[number] }) => {
      asked.push(body.changes)
      return Response.json({ revision: 1, label: '' })
    })
  })
})
afterEach(() => vi.unstubAllGlobals())

function show(...clips: Clip[]) {
  const p = open((p) => {
    p.audio = [{ hash: 'x', name: 'Reading', frames: 96000, channels: 1 }]
    p.channels[0]!.clips = clips
  })
  setSession((s) => ({
    strip: {
      ...s.strip!,
      clipGain: param({ name: 'gain', label: 'Gain', min: -60, max: 36 }),
      clipFade: param({
        name: 'fade',
        label: 'Fade',
        unit: 'ms',
        min: 2,
        max: 60000,
        default: 2,
        taper: 'log',
        step: 1,
      }),
    },
  }))
  draw(<ClipPanel clips={clips} channel={p.channels[0]!} />)
}

test('a key on a scale is stored once the hand rests', async () => {
  show(clip('a'))
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Gain of Clip a' }), { key: 'ArrowRight' })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Gain of Clip a' }), { key: 'ArrowRight' })
  await waitFor(() => expect(asked).toEqual([[{ type: 'clip.set', do: { id: 'a', gain: 1 } }]]))
})

test('several keep their differences, and no gain leaves its range', async () => {
  show(clip('a', { gain: -3 }), clip('b', { gain: 35 }))
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Gain of 2 clips' }), { key: '0' })
  await waitFor(() =>
    expect(asked[0]).toEqual([
      { type: 'clip.set', do: { id: 'a', gain: 0 } },
      { type: 'clip.set', do: { id: 'b', gain: 36 } },
    ]),
  )
})

test('a fade is never longer than the clip leaves it, and none at its least', async () => {
  show(clip('a', { fadeOut: 47000, fadeIn: 960 }))
  const fade = screen.getByRole('slider', { name: 'Fade in of Clip a' })
  fireEvent.keyDown(fade, { key: 'End' })
  await waitFor(() => expect(asked[0]).toEqual([{ type: 'clip.set', do: { id: 'a', fadeIn: 1000 } }]))
  fireEvent.keyDown(fade, { key: 'Home' })
  await waitFor(() => expect(asked[1]).toEqual([{ type: 'clip.set', do: { id: 'a', fadeIn: 0 } }]))
})

test('it says where in its source it lies, and what overlapping does is of the row or of one place', async () => {
  show(clip('a'))
  expect(screen.getByText(/1\.00 s on .*0\.10 to 1\.10 s of Reading/)).toBeTruthy()
  fireEvent.change(screen.getByLabelText('Over another clip'), { target: { value: 'cover' } })
  await waitFor(() => expect(asked[0]![0]!.do).toEqual({ id: 'a', over: 'cover' }))
  fireEvent.change(screen.getByLabelText(/^All clips of/), { target: { value: 'fade' } })
  await waitFor(() => expect(asked[1]![0]).toMatchObject({ type: 'channel.set', do: { overlaps: 'fade' } }))
})
