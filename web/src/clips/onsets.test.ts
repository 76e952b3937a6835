import { expect, test, vi } from 'vitest'
import { setSession } from '../session/store'
import { clip, open } from '../testing/screen'
import { onsetsNear } from './onsets'

const asked = vi.fn()
vi.mock('./levels', () => ({
  marksOf: (id: string) => {
    asked(id)
    return Promise.resolve({
      usual: 0.5,
      marks: [
        { at: 11000, strength: 0.9 },
        { at: 11500, strength: 0.2 },
        { at: 20000, strength: 0.6 },
      ],
    })
  },
}))

test('what begins in a clip is found once, and goes where the clip goes', async () => {
  const x = clip('a', { frames: 48000 })
  const row = open((p) => (p.channels[0]!.clips = [x])).channels[0]!.id
  const lies = (at: number) => setSession({ timeline: { clips: { a: at } } as never })
  lies(10000)
  expect(onsetsNear(row, 11010, 50)).toEqual([]) // it is being found
  await Promise.resolve()
  expect(onsetsNear(row, 11010, 50)).toEqual([11000])
  expect(onsetsNear(row, 11500, 50)).toEqual([]) // too weak
  expect(onsetsNear(row, 19990, 5)).toEqual([]) // too far away
  expect(onsetsNear(row, 100000, 50)).toEqual([]) // no clip is there
  lies(30000)
  expect(onsetsNear(row, 40010, 50)).toEqual([40000])
  expect(asked).toHaveBeenCalledTimes(1)
})
