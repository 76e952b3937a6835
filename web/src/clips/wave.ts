import { soundAt } from '../api/soundAt'
import { projectId } from '../session/store'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Clip } from '../api/types'

/** Frames that one value of the overview stands for: audiofile.OverviewFrames. */
const FRAMES = 512

/** The overview of a sound; of none nothing. The one before stays until the next is there. */
export const useOverview = (hash: string) =>
  useQuery({
    queryKey: ['overview', hash],
    queryFn: () => overview(hash),
    staleTime: Infinity,
    enabled: hash !== '',
    placeholderData: keepPreviousData,
  })

async function overview(hash: string): Promise<Uint8Array> {
  const r = await fetch(soundAt(projectId(), hash, 'overview'))
  if (!r.ok) throw new Error('The overview cannot be fetched.')
  return new Uint8Array(await r.arrayBuffer())
}

export type Seen = {
  clip: Clip
  first: number // the frame of the clip at the left edge
  perPixel: number
  width: number
  height: number
  /** By how many frames what is drawn lies further on than the clip counts. */
  shift: number
  /** The overview of the source, where something else was worked out of it: its outline stands behind. */
  source?: Uint8Array
}

/** A filled part of a waveform: its colour, and the path around it. */
export type Contour = { colour: string; path: string }

/** A pixel of a clip's height in units of its contours: whole numbers are written and read faster. */
export const UNITS = 4

/** A clip as nested depth contours: peak outside, RMS inside; as loud as its gain and its swell make it. Where it was
    worked out of something else, the outline of that stands behind it. */
export function contours(data: Uint8Array, seen: Seen): Contour[] {
  const { clip, first, perPixel, width, height, source } = seen
  const at = (x: number) => first + x * perPixel + clip.offset
  const louder = Array.from({ length: width }, (_, x) => 10 ** ((clip.gain + swellAt(clip, at(x))) / 40))
  const shown = (x: number) => at(x) + seen.shift
  const room = height / 2 - 2
  const filled = (colour: string, of: number[], scale: (x: number) => number): Contour => ({
    colour,
    path: around(
      of.map((y, x) => Math.min(y * scale(x), 1) * room),
      height / 2,
    ),
  })
  const peaks = heights(data, 0, width, shown)
  const list = [
    filled('var(--shoal-2)', peaks, (x) => louder[x]! * 1.15),
    filled('var(--shoal-3)', peaks, (x) => louder[x]! * 0.85),
    filled('var(--deep)', heights(data, 1, width, shown), (x) => louder[x]! * 0.95),
  ]
  if (!source) return list
  const { extent } = clip
  const per = extent ? (extent.to - extent.from) / extent.frames : 1
  const begin = extent?.from ?? 0
  const behind = heights(source, 0, width, (x) => begin + (at(x) - begin) * per)
  return [filled('var(--hair)', behind, () => 1), ...list]
}

/** How loud an overview is at each pixel, 0 to 1: square-root values, so that quiet sounds stay visible. */
function heights(data: Uint8Array, which: 0 | 1, width: number, place: (x: number) => number): number[] {
  return Array.from({ length: width }, (_, x) => {
    const a = place(x) / FRAMES
    const b = place(x + 1) / FRAMES
    let top = 0
    for (
      let k = Math.max(0, Math.floor(a));
      k < Math.max(Math.floor(a) + 1, b) && 2 * k + 1 < data.length;
      k++
    ) {
      top = Math.max(top, data[2 * k + which]!)
    }
    return top / 255
  })
}

/** The path around heights, the same above the middle and below. What stays as it was is one line. */
function around(ys: number[], middle: number): string {
  const m = Math.round(middle * UNITS)
  let above = `M0 ${m}`
  let below = ''
  let last = 0
  ys.forEach((height, x) => {
    const y = Math.round(height * UNITS)
    if (y === last && x < ys.length - 1) return
    const turn = x > 0 && y !== last ? `L${x - 1} ${m - last}` : ''
    const back = x > 0 && y !== last ? `L${x - 1} ${m + last}` : ''
    above += `${turn}L${x} ${m - y}`
    below = `L${x} ${m + y}${back}${below}`
    last = y
  })
  return `${above}L${ys.length} ${m - last}L${ys.length} ${m + last}${below}Z`
}

/** The swell at a frame of the audio in dB, as it is drawn; what is heard Go works out. */
export function swellAt(clip: Clip, frame: number): number {
  const points = clip.swell ?? []
  let k = points.length - 1
  while (k >= 0 && points[k]!.at > frame) k--
  const a = points[k]
  const b = points[k + 1]
  if (!a) return b?.gain ?? 0
  if (!b || a.step) return a.gain
  return a.gain + ((b.gain - a.gain) * (frame - a.at)) / (b.at - a.at)
}
