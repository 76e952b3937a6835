import { act, render, screen } from '@testing-library/react'
import { StrictMode, startTransition, useState } from 'react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Presence } from '../api/types'
import { useSession } from '../session/store'
import { OtherPlayheads } from './OtherPlayheads'
import { Others } from './Others'

const here = (window: string, id: string, name: string) =>
  ({
    window,
    person: { id, name },
    at: 'marimba',
    stage: '',
    heard: { playing: true, song: 48000, from: 0, to: 0 },
  }) as unknown as Presence

const flags = () =>
  [...document.querySelectorAll<HTMLElement>('[data-playhead]')].map((f) => f.dataset.playhead)

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] })
})
afterEach(() => {
  act(() => useSession.setState({ people: [], me: null }))
})

test('whoever has no name yet is not shown to themselves as somebody else, at the playhead or at a row', () => {
  useSession.setState({ me: null, people: [here('mine', '', ''), here('w', 'o', 'Odile')] })
  render(
    <>
      <OtherPlayheads perPixel={100} rate={48000} />
      <Others row="marimba" />
    </>,
  )
  expect(flags()).toEqual(['Odile'])
  expect(screen.queryByLabelText(/Somebody without a name/)).toBeNull()
  expect(screen.getByLabelText('Odile: at this row')).toBeDefined()
  act(() => useSession.setState({ me: { id: 'a', name: 'Ada' } as never }))
  expect(flags(), 'to Ada they are somebody').toEqual(['Somebody without a name', 'Odile'])
})

test('a flag’s clock ends with the flag', async () => {
  useSession.setState({ me: null, people: [here('w', 'o', 'Odile')] })
  let leave: () => void = () => undefined
  function Page() {
    const [there, setThere] = useState(true)
    leave = () => startTransition(() => setThere(false))
    return there ? <OtherPlayheads perPixel={100} rate={48000} /> : null
  }
  const { container } = render(<Page />, { wrapper: StrictMode })
  expect(flags()).toEqual(['Odile'])
  // between the moment in which a page has gone and what React tidies up later
  const troubles: unknown[] = []
  const gone = new Promise<void>((resolve) => {
    new MutationObserver(() => {
      try {
        vi.advanceTimersByTime(200)
      } catch (e) {
        troubles.push(e)
      }
      resolve()
    }).observe(container, { childList: true, subtree: true })
  })
  const acting = globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }
  const was = acting.IS_REACT_ACT_ENVIRONMENT
  acting.IS_REACT_ACT_ENVIRONMENT = false
  leave()
  await gone
  acting.IS_REACT_ACT_ENVIRONMENT = was
  expect(flags()).toEqual([])
  expect(troubles).toEqual([])
})
